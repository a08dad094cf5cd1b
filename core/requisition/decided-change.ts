import type { SentSubject } from '#core/approval/policy'
import type { MayChange } from '#core/approval/policy-form'
import { dec, type DecimalText } from '#core/base/decimal'
import type { DraftCoding, DraftLine } from './draft'

/** What is changed of one line: a lower quantity, one budget line that pays for all of it, or both. */
export interface LineChange {
  readonly lineId: string
  readonly quantity?: DecimalText | undefined
  readonly budgetLineId?: string | undefined
}

/** Why a change is not taken: the line it is about, by what it is for. */
export type LineChangeReason =
  | { readonly code: 'nothing-changed' }
  | { readonly code: 'unknown-line' }
  | {
      readonly code: 'not-allowed' | 'not-less' | 'nothing-left' | 'split-by-parts' | 'payer-not-open'
      readonly what: string
    }

/** A request's lines as they are once it is changed, and what that makes of the decisions on it. */
export interface ChangedLines<L> {
  readonly lines: readonly L[]
  /** Nothing but lower quantities: the approvals that stood go on to stand. */
  readonly isLess: boolean
}

/**
 * Changes a request's lines as whoever approves wants them. `payers` are the budget lines that may pay for each line.
 * A line that is divided by amounts or quantities is not made less: whoever divided it has to say what of it stays.
 */
export function changeLines<L extends Pick<DraftLine, 'id' | 'description' | 'quantity' | 'splitMethod' | 'codings'>>(
  lines: readonly L[],
  changes: readonly LineChange[],
  may: MayChange,
  payers: (line: L) => ReadonlySet<string>,
): ChangedLines<L> | { readonly reasons: readonly LineChangeReason[] } {
  const reasons: LineChangeReason[] = []
  const byLine = new Map(changes.map((c) => [c.lineId, c]))
  if (changes.some((c) => !lines.some((l) => l.id === c.lineId))) reasons.push({ code: 'unknown-line' })
  let payersChanged = false
  let quantityChanged = false
  const changed = lines.map((line) => {
    const { quantity = line.quantity, budgetLineId } = byLine.get(line.id) ?? {}
    const isPaidAnew = budgetLineId !== undefined && !paysAlone(line, budgetLineId)
    const isLess = !dec(quantity).eq(dec(line.quantity))
    const refuse = (code: Exclude<LineChangeReason['code'], 'nothing-changed' | 'unknown-line'>) =>
      reasons.push({ code, what: line.description })
    if ((isLess && may === 'nothing') || (isPaidAnew && may !== 'quantities and payers')) refuse('not-allowed')
    else if (isLess && dec(quantity).gt(dec(line.quantity))) refuse('not-less')
    else if (isLess && !dec(quantity).isPositive()) refuse('nothing-left')
    else if (isLess && !isPaidAnew && ['amount', 'quantity'].includes(line.splitMethod) && line.codings.length > 1)
      refuse('split-by-parts')
    else if (isPaidAnew && !payers(line).has(budgetLineId)) refuse('payer-not-open')
    payersChanged ||= isPaidAnew
    quantityChanged ||= isLess
    const codings: readonly DraftCoding[] = isPaidAnew ? [{ budgetLineId, value: null }] : line.codings
    return { ...line, quantity, codings, splitMethod: isPaidAnew ? ('percent' as const) : line.splitMethod }
  })
  if (reasons.length === 0 && !payersChanged && !quantityChanged) reasons.push({ code: 'nothing-changed' })
  return reasons.length > 0 ? { reasons } : { lines: changed, isLess: !payersChanged }
}

const paysAlone = ({ codings }: Pick<DraftLine, 'codings'>, budgetLineId: string): boolean =>
  codings.length === 1 && codings[0]?.budgetLineId === budgetLineId

/**
 * The codings that are frozen of a request, once some of its lines are paid otherwise: what is not about who pays stays
 * as it was sent. `payerOf` knows the account and the project of a budget line.
 */
export function recodeSent(
  sent: SentSubject['codings'],
  was: readonly Pick<DraftLine, 'codings'>[],
  now: readonly Pick<DraftLine, 'codings'>[],
  payerOf: (budgetLineId: string) => { readonly account: string; readonly project: string | null },
): SentSubject['codings'] {
  let at = 0
  return was.flatMap(({ codings: before }, i) => {
    const frozen = sent.slice(at, at + before.length)
    at += before.length
    const after = now[i]?.codings ?? before
    const [like = { category: null }] = frozen
    const isSame = after.length === before.length && after.every((c, n) => c.budgetLineId === before[n]?.budgetLineId)
    return isSame ? frozen : after.map(({ budgetLineId }) => ({ ...like, budgetLineId, ...payerOf(budgetLineId) }))
  })
}
