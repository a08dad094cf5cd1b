import type { Day } from '#core/base/day'
import type { WarningMode } from './warning'

/** What somebody at a supplier is spoken to about. */
export const CONTACT_USES = ['orders', 'bills', 'quotes', 'returns', 'anything'] as const
export type ContactUse = (typeof CONTACT_USES)[number]

export interface DatedWarning {
  readonly text: string
  readonly mode: WarningMode
  /** First and last day on which it is said; null: no end on that side. */
  readonly from: Day | null
  readonly until: Day | null
}

/** The text of a warning on a day; null where it is not said then, or there is none. */
export function warningOn(w: DatedWarning, day: Day): string | null {
  if (w.text.trim() === '' || (w.from !== null && day < w.from) || (w.until !== null && day > w.until)) return null
  return w.text.trim()
}

/** How a supplier stands: only an active one may be asked for and ordered from. */
export const STANDINGS = ['active', 'on hold', 'blocked', 'proposed', 'refused', 'merged'] as const
export type Standing = (typeof STANDINGS)[number]

/** What finance may make of a standing by a decision of its own; proposals are decided and doubles merged elsewhere. */
const NEXT: Partial<Record<Standing, readonly Standing[]>> = {
  active: ['on hold', 'blocked'],
  'on hold': ['active', 'blocked'],
  blocked: ['active', 'on hold'],
}
export const nextStandings = (standing: Standing): readonly Standing[] => NEXT[standing] ?? []

/** The days before its end on which people are told that a paper ends; ours. */
export const REMIND_DAYS = 30

/** What an order needs to arrive; each is there, is missing, or is worth a look. */
export type ReachPart = 'standing' | 'channel' | 'address' | 'terms' | 'tax number' | 'bank' | 'papers'
export interface Reach {
  readonly part: ReachPart
  readonly is: 'there' | 'missing' | 'look'
}

/**
 * Whether an order to a supplier is going to arrive, and its bill be paid, part by part: without a standing and a way
 * that it takes orders by nothing leaves; the rest is needed later. Common practice, no source.
 */
export function reachOf(s: {
  readonly standing: Standing
  /** The address of its channel; null where it has none. */
  readonly orderAddress: string | null
  readonly address: string
  readonly termsDays: number
  readonly taxNumber: string | null
  readonly hasBank: boolean
  readonly bankWaits: boolean
  /** The first day on which a paper ends; null where none does. */
  readonly paperEnds: Day | null
  readonly today: Day
}): Reach[] {
  const there = (is: boolean, otherwise: 'missing' | 'look' = 'missing'): Reach['is'] => (is ? 'there' : otherwise)
  return [
    { part: 'standing', is: there(s.standing === 'active') },
    { part: 'channel', is: there(s.orderAddress !== null) },
    { part: 'address', is: there(s.address.trim() !== '', 'look') },
    { part: 'terms', is: there(s.termsDays > 0, 'look') },
    { part: 'tax number', is: there((s.taxNumber ?? '') !== '', 'look') },
    { part: 'bank', is: there(s.hasBank && !s.bankWaits, 'look') },
    ...(s.paperEnds === null ? [] : [{ part: 'papers' as const, is: there(s.paperEnds >= s.today, 'look') }]),
  ]
}
