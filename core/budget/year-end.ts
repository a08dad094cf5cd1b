import { add, compare, negate, subtract, sum, type Money } from '#core/base/money'
import { figuresFor, type SpannedLine } from './available'
import type { LedgerEntry, Standing } from './ledger'

/** What becomes of what is still open of a budget line when its year has ended. */
export const YEAR_END_CHOICES = ['carry', 'release'] as const
export type YearEndChoice = (typeof YEAR_END_CHOICES)[number]

/** What is carried pays from this period of the next year. */
export const CARRIED_TO = 1

/** What a stage of one document line stands at, in one coding and period. */
export interface OpenStanding extends Standing {
  readonly stage: 'reserved' | 'committed'
  readonly documentKind: 'requisition' | 'order' | 'opening'
  readonly documentId: string
  readonly lineId: string
  readonly period: number
}

/** What the end of a year enters for one document line: away where it stood, and there where it is carried to. */
export interface YearEndEntry
  extends LedgerEntry, Pick<OpenStanding, 'documentKind' | 'documentId' | 'lineId' | 'period'> {
  readonly cause: 'carried' | 'released'
}

/**
 * The entries that end a year for what stands open, budget line by budget line as chosen: all of it leaves its line,
 * and what is carried stands as it was, in the first period of the line that pays for the same a year on. A line
 * without a choice stays as it is.
 * @throws where a line is to be carried and has none to be carried to
 */
export function yearEndEntries(
  open: readonly OpenStanding[],
  choices: ReadonlyMap<string, YearEndChoice>,
  nextOf: ReadonlyMap<string, string>,
): YearEndEntry[] {
  return open.flatMap((s): YearEndEntry[] => {
    const choice = choices.get(s.budgetLineId)
    if (choice === undefined) return []
    const away = { ...s, amount: negate(s.amount) }
    if (choice === 'release') return [{ ...away, cause: 'released' }]
    const next = nextOf.get(s.budgetLineId)
    if (next === undefined) throw new Error('a line is carried to a year in which it is not')
    return [
      { ...away, cause: 'carried' },
      { ...s, budgetLineId: next, period: CARRIED_TO, cause: 'carried' },
    ]
  })
}

/** What is left of the line of the next year, before and after. */
export interface CarriedOutcome {
  readonly before: Money
  readonly after: Money
  /** It is passed by more than it allows. Nothing is refused for that: what is carried was promised before. */
  readonly isPassed: boolean
}

/** What the line of the next year has left without and with what is carried to it, with its money or without. */
export function carriedOutcome(next: SpannedLine, carried: Money, withMoney: boolean): CarriedOutcome {
  const before = figuresFor(next, CARRIED_TO).available
  const after = withMoney ? before : subtract(before, carried)
  const floor = negate(next.mayFallBelow)
  return { before, after, isPassed: !withMoney && compare(after, floor) < 0 }
}

/** What stands open of some standings, in each stage and together, and how many documents that are. */
export function openOf(
  open: readonly OpenStanding[],
  currency: string,
): { readonly reserved: Money; readonly committed: Money; readonly open: Money; readonly documents: number } {
  const of = (stage: OpenStanding['stage']) =>
    sum(
      open.filter((s) => s.stage === stage).map((s) => s.amount),
      currency,
    )
  const [reserved, committed] = [of('reserved'), of('committed')]
  return {
    reserved,
    committed,
    open: add(reserved, committed),
    documents: new Set(open.map((s) => s.documentId)).size,
  }
}
