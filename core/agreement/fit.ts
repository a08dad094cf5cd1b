import type { Day } from '#core/base/day'

/** What an agreement fixes: the items that stand in it, with their prices, or a sum alone. */
export const AGREEMENT_FIXES = ['items', 'sum'] as const
export type AgreementFixes = (typeof AGREEMENT_FIXES)[number]

/** A framework agreement with a supplier, as far as it decides what may draw on it. */
export interface Agreement {
  readonly id: string
  readonly number: string
  readonly name: string
  readonly supplierId: string
  readonly currency: string
  /** Its term; both days belong to it. */
  readonly startsOn: Day
  readonly endsOn: Day
  readonly fixes: AgreementFixes
  /** What stands in it, where it fixes items. */
  readonly itemIds: readonly string[]
  /** Who may draw: these departments and all below them; none: everybody. */
  readonly departmentIds: readonly string[]
  readonly isClosed: boolean
}

/** What a document, or a line of it, would draw: for whom, of what, and on which day. */
export interface Draw {
  readonly supplierId: string | null
  readonly currency: string
  /** Its accounting date. */
  readonly day: Day
  /** Of each department that asks: itself and all above it. */
  readonly branches: readonly (readonly string[])[]
  /** The items of its lines; null for what stands in no catalogue. */
  readonly itemIds: readonly (string | null)[]
}

/** Why a draw does not fit an agreement. */
export type Misfit =
  | { readonly code: 'closed' | 'other-supplier' | 'other-department' }
  | { readonly code: 'other-currency'; readonly currency: string }
  | { readonly code: 'not-begun' | 'ended'; readonly day: Day }
  /** So many lines are of nothing that stands in it. */
  | { readonly code: 'not-in-it'; readonly lines: number }

/**
 * Everything for which a draw does not fit; nothing when it may draw: same supplier and currency, the day within the
 * term (both ends), whoever asks may, and of one that fixes items every line's item stands in it. Source: rules of
 * calculation, agreements.
 */
export function misfitsOf(agreement: Agreement, draw: Draw): Misfit[] {
  const { startsOn, endsOn, currency, departmentIds } = agreement
  const misfits: Misfit[] = []
  if (agreement.isClosed) misfits.push({ code: 'closed' })
  if (draw.supplierId !== agreement.supplierId) misfits.push({ code: 'other-supplier' })
  if (draw.currency !== currency) misfits.push({ code: 'other-currency', currency })
  if (draw.day < startsOn) misfits.push({ code: 'not-begun', day: startsOn })
  if (draw.day > endsOn) misfits.push({ code: 'ended', day: endsOn })
  if (departmentIds.length > 0 && !draw.branches.every((b) => b.some((id) => departmentIds.includes(id))))
    misfits.push({ code: 'other-department' })
  if (agreement.fixes === 'items') {
    const inIt = new Set(agreement.itemIds)
    const lines = draw.itemIds.filter((id) => id === null || !inIt.has(id)).length
    if (lines > 0) misfits.push({ code: 'not-in-it', lines })
  }
  return misfits
}

/**
 * The agreement that a draw is counted on by itself, so that nobody has to remember it: one that fixes its items before
 * one that fixes a sum. Where several fit alike none is taken by itself, and its buyer says which.
 */
export function agreementFor(agreements: readonly Agreement[], draw: Draw): Agreement | null {
  const fitting = agreements.filter((a) => misfitsOf(a, draw).length === 0)
  for (const fixes of AGREEMENT_FIXES) {
    const [one, ...others] = fitting.filter((a) => a.fixes === fixes)
    if (one !== undefined) return others.length === 0 ? one : null
  }
  return null
}

/** Where an agreement stands on a day. */
export const AGREEMENT_STANDINGS = ['in force', 'to come', 'ended', 'closed'] as const
export type AgreementStanding = (typeof AGREEMENT_STANDINGS)[number]

/** Where an agreement stands on a day; both ends of its term belong to it. */
export function agreementStanding(
  { isClosed, startsOn, endsOn }: Pick<Agreement, 'isClosed' | 'startsOn' | 'endsOn'>,
  day: Day,
): AgreementStanding {
  if (isClosed) return 'closed'
  if (day < startsOn) return 'to come'
  return day > endsOn ? 'ended' : 'in force'
}
