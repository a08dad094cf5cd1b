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
    ],
  },
  {
    name: 'Decision',
    waits: 'decision',
    places: [
      { name: 'Decide', path: '/decide', right: 'decide' },
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
    ],
  },
  { name: 'Delivery', waits: null, places: [] },
  { name: 'Bill', waits: null, places: [] },
]

/** What stands beside the line of stations, by its name, with its places. */
const BESIDE: readonly { readonly name: string; readonly places: readonly Place[] }[] = [
  {
    name: 'Set-up',
    places: [
      { name: 'What is missing', path: '/set-up', right: 'keep lists' },
      { name: 'People', path: '/set-up/lists/people', right: 'keep settings' },
      { name: 'Departments', path: '/set-up/lists/departments', right: 'keep settings' },
      { name: 'Places', path: '/set-up/lists/places', right: 'keep settings' },
      { name: 'Accounts', path: '/set-up/lists/accounts', right: 'keep budgets' },
      { name: 'Budget lines', path: '/set-up/lists/budget-lines', right: 'keep budgets' },
      { name: 'Supplier list', path: '/set-up/lists/suppliers', right: 'approve suppliers' },
      { name: 'Requests', path: '/set-up/requests', right: 'keep settings' },
    ],
  },
]

/** What stands beside the line for somebody with these rights, each with at least one place. */
export function besideFor(
  rights: readonly string[],
): { readonly name: string; readonly places: readonly [Place, ...Place[]] }[] {
  return BESIDE.flatMap(({ name, places }) => {
    const [first, ...more] = places.filter((p) => rights.includes(p.right))
    return first === undefined ? [] : [{ name, places: [first, ...more] }]
  })
}

/** Where a page belongs that is not a place itself. */
export function placeOf(path: string): string {
  if (path.startsWith('/trail')) return '/mine'
  if (path.startsWith('/set-up')) return path
  return `/${path.split('/')[1] ?? ''}`
}
