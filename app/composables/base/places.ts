import type { Right } from '#core/people/rights'

export type StationName = 'Need' | 'Decision' | 'Order' | 'Delivery' | 'Bill'
export interface Place {
  readonly name: string
  readonly path: string
  readonly right: Right
}

/** The five stations and the places that stand under each, as far as they exist. */
export const STATIONS: readonly {
  readonly name: StationName
  readonly waits: 'need' | 'decision' | 'order' | null
  readonly places: readonly Place[]
}[] = [
  {
    name: 'Need',
    waits: 'need',
    places: [
      { name: 'Raise', path: '/raise', right: 'raise' },
      { name: 'Mine', path: '/mine', right: 'see own' },
      { name: 'Regulars', path: '/regulars', right: 'raise' },
      { name: 'Catalogue', path: '/catalogue', right: 'see catalogue' },
      { name: 'Jobs', path: '/jobs', right: 'see catalogue' },
    ],
  },
  {
    name: 'Decision',
    waits: 'decision',
    places: [
      { name: 'Decide', path: '/decide', right: 'decide' },
      { name: 'Decided', path: '/decided', right: 'decide' },
      { name: 'Waiting', path: '/waiting', right: 'see what waits' },
      { name: 'Budgets', path: '/budgets', right: 'see budgets' },
      { name: 'Away', path: '/away', right: 'be away' },
    ],
  },
  {
    name: 'Order',
    waits: 'order',
    places: [
      { name: 'Desk', path: '/desk', right: 'order' },
      { name: 'Orders', path: '/orders', right: 'see orders' },
      { name: 'Suppliers', path: '/suppliers', right: 'see orders' },
      { name: 'Agreements', path: '/agreements', right: 'see orders' },
    ],
  },
  { name: 'Delivery', waits: null, places: [] },
  { name: 'Bill', waits: null, places: [] },
]

/** What stands beside the line of stations; its places are fetched where one is in it. */
const BESIDE: readonly (Place & { readonly or?: Right })[] = [
  { name: 'Look back', path: '/look-back', right: 'look back', or: 'see integrity' },
  { name: 'Set-up', path: '/set-up', right: 'keep lists' },
]

/** What stands beside the line for somebody with these rights. */
export const besideFor = (rights: readonly string[]): Place[] =>
  BESIDE.filter((p) => rights.includes(p.right) || (p.or !== undefined && rights.includes(p.or)))

/** Where a page belongs that is not a place itself. */
export function placeOf(path: string): string {
  if (path.startsWith('/trail')) return '/mine'
  if (path.startsWith('/set-up')) return path
  return `/${path.split('/')[1] ?? ''}`
}
