import { NOTHING, dec, type Decimal, type DecimalText } from '#core/base/decimal'
import type { Day } from '#core/base/day'
import { lineNet, type Adjustment } from '#core/base/line-net'
import { roundMoney, type Money } from '#core/base/money'
import { isByAmount } from '#core/base/unit'
import { verdict, type Verdict } from '#core/base/verdict'
import { adjustmentsOfPart } from '#core/budget/effect'
import { isExpired } from './conditions'
import type { IssueReason } from './issue'
import type { OrderState } from './moves'

/** How much of a line of a blanket order: so many of its units, which come to so much. */
export interface Called {
  readonly quantity: DecimalText
  readonly net: Money
}

/** A line of a blanket order, with what of it was called off. */
export interface BlanketLine {
  readonly id: string
  readonly description: string
  readonly unit: string
  readonly quantity: DecimalText
  readonly unitPrice: DecimalText
  readonly priceBase: DecimalText
  readonly adjustments: readonly Adjustment[]
  readonly net: Money
  readonly called: Called
}

/** What of a line somebody calls off: a quantity, or of a line by amount, an amount in the order's currency. */
export interface CallWish {
  readonly lineId: string
  readonly much: DecimalText
  readonly needBy: Day
}

/** A line of a call-off; it is priced as its blanket order is. */
export interface CalledLine {
  readonly of: BlanketLine
  readonly quantity: DecimalText
  readonly unitPrice: DecimalText
  readonly priceBase: DecimalText
  readonly adjustments: readonly Adjustment[]
  readonly needBy: Day
  readonly net: Money
}

/** How much that is as a line counts it: its quantity, or of a line by amount, its amount. */
export const muchOf = (unit: string, of: Called): DecimalText => (isByAmount(unit) ? of.net.amount : of.quantity)

/** How much of a line of a blanket order can still be called off; never less than nothing. */
export function leftToCall(line: BlanketLine): DecimalText {
  const left = dec(muchOf(line.unit, line)).minus(dec(muchOf(line.unit, line.called)))
  return (left.isNegative() ? NOTHING : left).toFixed()
}

/**
 * The lines of a call-off, in the order of the blanket order's: of a quantity at its price, what is taken off as an
 * amount following the quantity; by amount as one lump sum of it. Wishes for nothing are left out.
 */
export function callLines(lines: readonly BlanketLine[], wishes: readonly CallWish[], currency: string): CalledLine[] {
  const wished = new Map(wishes.map((w) => [w.lineId, w]))
  return lines.flatMap((of): CalledLine[] => {
    const wish = wished.get(of.id)
    if (wish === undefined) return []
    const much = isByAmount(of.unit) ? dec(roundMoney(dec(wish.much), currency).amount) : dec(wish.much)
    return much.isZero() ? [] : [callLine(of, much, wish.needBy, currency)]
  })
}

function callLine(of: BlanketLine, much: Decimal, needBy: Day, currency: string): CalledLine {
  const line = isByAmount(of.unit)
    ? { quantity: '1', unitPrice: much.toFixed(), priceBase: '1', adjustments: [] }
    : {
        ...{ quantity: much.toFixed(), unitPrice: of.unitPrice, priceBase: of.priceBase },
        adjustments: adjustmentsOfPart(of.adjustments, much.toFixed(), of.quantity),
      }
  return { of, ...line, needBy, net: lineNet({ ...line, currency }) }
}

/** That more is called off of a line than is left of it. */
export interface BeyondBlanket {
  readonly code: 'beyond-blanket'
  readonly stops: true
  readonly description: string
  /** The most that can be: a quantity, or an amount of a line by amount. */
  readonly most: DecimalText
  readonly unit: string
  readonly currency: string
}
export interface AfterTheEnd {
  readonly code: 'after-the-end'
  readonly stops: true
  readonly description: string
  /** The last day of the blanket order. */
  readonly on: Day
}
export type CallReason =
  | IssueReason
  | BeyondBlanket
  | AfterTheEnd
  | { readonly code: 'nothing-called'; readonly stops: true }
  | { readonly code: 'day-is-past'; readonly stops: true; readonly description: string }

export interface CallFacts {
  /** The blanket order's. */
  readonly state: OrderState
  readonly expiresOn: Day | null
  readonly today: Day
  readonly currency: string
  readonly supplier: { readonly name: string; readonly isBlocked: boolean; readonly channel: 'e-mail' }
  readonly isReachable: boolean
  readonly lines: readonly CalledLine[]
}

/** Whether what is ordered by a blanket order in a state can be called off. */
export const isCallable = (state: OrderState): boolean => state === 'issued' || state === 'acknowledged'

/**
 * Whether a part of a blanket order may be called off by its buyer, with everything that stands in the way. Nobody
 * decides on it: the blanket order was decided on, and holds the money for all of it.
 */
export function decideCallOff(f: CallFacts): Verdict<'called off', CallReason> {
  const reasons: CallReason[] = []
  if (!isCallable(f.state)) reasons.push({ code: 'order-state', stops: true, state: f.state })
  if (f.expiresOn !== null && isExpired(f.expiresOn, f.today))
    reasons.push({ code: 'order-expired', stops: true, on: f.expiresOn })
  const { name: supplier, channel } = f.supplier
  if (f.supplier.isBlocked) reasons.push({ code: 'supplier-blocked', stops: true, supplier })
  if (!f.isReachable) reasons.push({ code: 'supplier-unreachable', stops: true, supplier, channel })
  if (f.lines.length === 0) reasons.push({ code: 'nothing-called', stops: true })
  for (const line of f.lines) {
    const { unit, description } = line.of
    const most = leftToCall(line.of)
    if (dec(muchOf(unit, line)).minus(dec(most)).isPositive())
      reasons.push({ code: 'beyond-blanket', stops: true, description, most, unit, currency: f.currency })
    if (line.needBy < f.today) reasons.push({ code: 'day-is-past', stops: true, description })
    else if (f.expiresOn !== null && isExpired(f.expiresOn, line.needBy))
      reasons.push({ code: 'after-the-end', stops: true, description, on: f.expiresOn })
  }
  return verdict<'called off', CallReason>('called off', reasons)
}

/** So many days before its last day the buyer of a blanket order is told what is left of it. */
export const WARNED_BEFORE_END = 30
