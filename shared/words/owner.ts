import { formatCount, listWords } from './format'

/** What somebody owns, counted: "three requests, one draft and two orders"; "nothing" where there is none. */
export function sayOwned(n: {
  readonly requests: number
  readonly drafts: number
  readonly orders: number
  readonly trays: number
}): string {
  const counted = [
    [n.requests, 'request', 'requests'],
    [n.drafts, 'draft', 'drafts'],
    [n.orders, 'order', 'orders'],
    [n.trays, 'tray', 'trays'],
  ] as const
  const said = counted.flatMap(([count, one, many]) => (count === 0 ? [] : [formatCount(count, one, many)]))
  return said.length === 0 ? 'nothing' : listWords(said)
}
