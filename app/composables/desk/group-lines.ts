import { sum, type Money } from '#core/base/money'
import type { DeskLine } from '#shared/contract/order'

/** What lines on the Desk stand together by, in words. */
export const GROUPINGS = [
  { id: '', name: 'by supplier' },
  { id: 'agreement', name: 'by agreement' },
  { id: 'place', name: 'by place' },
  { id: 'day', name: 'by the day they are needed' },
  { id: 'request', name: 'by request' },
] as const
export type Grouping = (typeof GROUPINGS)[number]['id']

/** What an address says of it; by supplier where it says nothing that is known. */
export const groupingOf = (text: string): Grouping => GROUPINGS.find((g) => g.id === text)?.id ?? ''

const SHARED: Readonly<Record<Grouping, (l: DeskLine) => string>> = {
  '': (l) => l.supplier ?? '',
  agreement: (l) => l.agreement ?? '',
  place: (l) => l.shipTo,
  day: (l) => l.needBy,
  request: (l) => l.number,
}

export interface DeskGroup {
  /** What its lines share; "" where that is no supplier, or no agreement. */
  readonly shared: string
  readonly list: readonly DeskLine[]
  /** By currency. */
  readonly sums: readonly Money[]
}

/** Lines that stand together: suppliers in the order given, all else from the first place, day or number on. */
export function groupLines(lines: readonly DeskLine[], by: Grouping): DeskGroup[] {
  const found = new Map<string, DeskLine[]>()
  for (const l of lines) {
    const list = found.get(SHARED[by](l))
    if (list === undefined) found.set(SHARED[by](l), [l])
    else list.push(l)
  }
  const groups = by === '' ? [...found] : [...found].sort(([a], [b]) => (a < b ? -1 : 1))
  return groups.map(([shared, list]) => ({
    shared,
    list,
    sums: [...new Set(list.map((l) => l.currency))].map((c) =>
      sum(
        list.filter((l) => l.currency === c).map((l) => l.net),
        c,
      ),
    ),
  }))
}
