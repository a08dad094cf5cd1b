import type { ListName } from './list'

/** What an organisation has of what it needs. */
export interface SetUpCounts {
  readonly places: number
  readonly departments: number
  readonly accounts: number
  /** Budget lines of this fiscal year. */
  readonly budgetLines: number
  readonly people: number
  /** People who have chosen no password yet. */
  readonly uninvited: number
  /** Suppliers that may be ordered from, and those of them that orders can be mailed to. */
  readonly suppliers: number
  readonly reached: number
  /** Buyers who may order up to something. */
  readonly buyers: number
}

/** A step of setting up: what it is, what cannot be done before, and whether it is done. */
export interface SetUpStep {
  readonly code: keyof SetUpCounts
  /** The list that it is done in. */
  readonly list: ListName
  readonly before: 'request' | 'order' | 'use'
  readonly count: number
  readonly done: boolean
}

/** Every step in its order: what the first request needs, then the first order, then everybody's use. */
export function setUpSteps(c: SetUpCounts): SetUpStep[] {
  const step = (
    code: SetUpStep['code'],
    list: ListName,
    before: SetUpStep['before'],
    done = c[code] > 0,
  ): SetUpStep => ({
    code,
    list,
    before,
    count: c[code],
    done,
  })
  return [
    step('departments', 'departments', 'request'),
    step('places', 'places', 'request'),
    step('accounts', 'accounts', 'request'),
    step('budgetLines', 'budget-lines', 'request'),
    // Nobody decides what they asked for themselves: it takes two.
    step('people', 'people', 'request', c.people > 1),
    step('suppliers', 'suppliers', 'order'),
    step('reached', 'suppliers', 'order', c.suppliers > 0 && c.reached === c.suppliers),
    step('buyers', 'people', 'order'),
    step('uninvited', 'people', 'use', c.uninvited === 0),
  ]
}
