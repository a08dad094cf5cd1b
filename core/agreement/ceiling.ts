import { dec, type DecimalText } from '#core/base/decimal'
import { addDays, type Day } from '#core/base/day'
import { lineNet, type PricedLine } from '#core/base/line-net'
import { add, compare, isNegative, isZero, subtract, sum, type Money } from '#core/base/money'
import { adjustmentsOfPart } from '#core/budget/effect'

/** What is drawn of an agreement, in its currency and net, and when it warns. */
export interface DrawnOn {
  /** Null: it has no ceiling. */
  readonly ceiling: Money | null
  /** Committed and spent by everything that draws on it. */
  readonly drawn: Money
  /** Sent, and not ordered yet. */
  readonly reserved: Money
  /** From this share of the ceiling on documents carry a warning; null: never. */
  readonly warnPercent: DecimalText | null
  readonly endsOn: Day
  /** So many days before its end documents carry a warning. */
  readonly warnDays: number
}

/** What whoever draws should know. */
export type DrawWarning =
  | { readonly code: 'passes-ceiling'; readonly by: Money }
  | { readonly code: 'share-reached'; readonly drawn: Money; readonly ceiling: Money }
  | { readonly code: 'ends-soon'; readonly day: Day }

/** What is left to draw, after what is reserved; below nothing where more is asked for; null without a ceiling. */
export function leftOf({ ceiling, drawn, reserved }: DrawnOn): Money | null {
  return ceiling === null ? null : subtract(ceiling, add(drawn, reserved))
}

/** By how much `left` is passed by an amount; null where it is not. Up to the ceiling is within. */
function passedBy(left: Money | null, amount: Money): Money | null {
  if (left === null || compare(amount, left) <= 0) return null
  return subtract(amount, left)
}

/**
 * What whoever sends a request should know: that drawn, reserved and this pass the ceiling, and that the agreement ends
 * soon. Source: rules of calculation, agreements.
 */
export function warningsAtSending(of: DrawnOn, amount: Money, today: Day): DrawWarning[] {
  const by = passedBy(leftOf(of), amount)
  return [...(by === null ? [] : [{ code: 'passes-ceiling' as const, by }]), ...endsSoon(of, today)]
}

/** What whoever issues should know: that drawn comes to the warning share, or past it, and that it ends soon. */
export function warningsAtIssue(of: DrawnOn, amount: Money, today: Day): DrawWarning[] {
  const drawn = add(of.drawn, amount)
  const { ceiling } = of
  const isReached = ceiling !== null && isShareReached(of, drawn)
  return [...(isReached ? [{ code: 'share-reached' as const, drawn, ceiling }] : []), ...endsSoon(of, today)]
}

/** Whether an amount brings what is drawn from below the warning share to it, or past it. */
export const reachesShare = (of: DrawnOn, amount: Money): boolean =>
  !isShareReached(of, of.drawn) && isShareReached(of, add(of.drawn, amount))

const isShareReached = ({ ceiling, warnPercent }: DrawnOn, drawn: Money): boolean =>
  ceiling !== null &&
  warnPercent !== null &&
  dec(drawn.amount).gte(dec(ceiling.amount).times(dec(warnPercent)).percent())

/** By how much drawn and this pass the ceiling, which refuses it; null where they do not, and of what draws less. */
export function refusedDraw({ ceiling, drawn }: DrawnOn, amount: Money): Money | null {
  if (isNegative(amount) || isZero(amount)) return null
  return passedBy(ceiling === null ? null : subtract(ceiling, drawn), amount)
}

const endsSoon = ({ endsOn, warnDays }: DrawnOn, today: Day): DrawWarning[] =>
  endsOn >= today && endsOn <= addDays(today, warnDays) ? [{ code: 'ends-soon', day: endsOn }] : []

/** A sent line of which something is open. */
export interface OpenPart extends PricedLine {
  /** What of it is open; `quantity` is all that was asked. */
  readonly open: DecimalText
}

/** What the open part of a line comes to, net, in its currency; what is taken off as an amount follows the quantity. */
export function openNet({ open, ...line }: OpenPart): Money {
  return lineNet({
    ...line,
    quantity: open,
    adjustments: adjustmentsOfPart(line.adjustments ?? [], open, line.quantity),
  })
}

/** What the open parts that draw on an agreement reserve of it, in its currency. */
export const reservedBy = (parts: readonly OpenPart[], currency: string): Money => sum(parts.map(openNet), currency)
