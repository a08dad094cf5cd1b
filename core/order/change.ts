import { NOTHING, dec, type Decimal, type DecimalText } from '#core/base/decimal'
import type { Day } from '#core/base/day'
import { lineNet, type Adjustment } from '#core/base/line-net'
import { compare, convert, subtract, type Money } from '#core/base/money'
import { verdict, type Verdict } from '#core/base/verdict'
import { adjustmentsOfPart } from '#core/budget/effect'
import { isByAmount } from '#core/base/unit'
import { adjustmentReasons, type AdjustmentReason, type OrderAdjustment } from './adjustment'
import { muchOf, type AfterTheEnd, type BeyondBlanket, type Called } from './call-off'
import { isExpired } from './conditions'
import {
  authorityReasons,
  discountReasons,
  drawReasons,
  type Authority,
  type IssueReason,
  type OrderAgreement,
} from './issue'
import { isOrderMoveFrom, type OrderState } from './moves'

/** How much of an order line belongs to a requisition line, and how much of that requisition line nobody ordered. */
export interface StandingSource {
  readonly requisitionLineId: string
  readonly quantity: DecimalText
  readonly open: DecimalText
}

/** A line of an issued order as it stands. */
export interface StandingLine {
  readonly id: string
  readonly description: string
  readonly quantity: DecimalText
  readonly unit: string
  readonly unitPrice: DecimalText
  readonly priceBase: DecimalText
  readonly adjustments: readonly Adjustment[]
  readonly needBy: Day
  /** What came of it, or was billed, whichever is more: a change never goes below that. */
  readonly done: DecimalText
  /** Of a blanket order: what of it is called off, which a change never goes below. */
  readonly called?: Called | null
  /** Of a call-off: the most that it may be, as its blanket order's line counts it. */
  readonly mostOfBlanket?: DecimalText | null
  /** In the order of the requisitions. */
  readonly sources: readonly StandingSource[]
}

/** What a line is to be from now on. A quantity of 0 takes it off the order. */
export interface LineWish {
  readonly lineId: string
  readonly quantity: DecimalText
  readonly unitPrice: DecimalText
  readonly needBy: Day
}

/** What becomes of a need that is not ordered any more: it waits to be ordered again, or it is over. */
export const RESTS = ['returns', 'ends'] as const
export type Rest = (typeof RESTS)[number]

/** A line after a change, and by how much each of its sources moved. */
export interface ChangedLine extends StandingLine {
  readonly net: Money
  readonly was: { readonly quantity: DecimalText; readonly unitPrice: DecimalText; readonly needBy: Day; net: Money }
  readonly isChanged: boolean
  readonly moved: readonly { readonly requisitionLineId: string; readonly by: DecimalText }[]
}

/**
 * The lines of an order after a change. A lower quantity is taken from the requisitions behind it from the last
 * backwards, so that what comes, comes to the first; a higher one goes to the first that still needs something. What is
 * taken off as an amount follows the quantity. Of what is beyond that, the last source gets it: `decideOrderChange`
 * refuses it. Source: rules of calculation, consolidation ("in the order of the requisitions").
 */
export function changeLines(
  lines: readonly StandingLine[],
  wishes: readonly LineWish[],
  currency: string,
): ChangedLine[] {
  const wished = new Map(wishes.map((w) => [w.lineId, w]))
  return lines.map((line) => {
    const before = lineNet({ ...line, currency })
    const { quantity, unitPrice, needBy } = line
    const was = { quantity, unitPrice, needBy, net: before }
    const wish = wished.get(line.id)
    const isSame =
      wish === undefined ||
      (dec(wish.quantity).eq(dec(quantity)) && dec(wish.unitPrice).eq(dec(unitPrice)) && wish.needBy === needBy)
    if (isSame) return { ...line, net: before, was, isChanged: false, moved: [] }
    const to = {
      ...{ quantity: dec(wish.quantity).toFixed(), unitPrice: dec(wish.unitPrice).toFixed(), needBy: wish.needBy },
      adjustments: adjustmentsOfPart(line.adjustments, wish.quantity, quantity),
    }
    const { sources, moved } = moveSources(line.sources, dec(wish.quantity).minus(dec(quantity)))
    const isNothing = dec(to.quantity).isZero()
    const net = lineNet({ ...line, ...to, ...(isNothing ? { adjustments: [] } : {}), currency })
    return { ...line, ...to, sources, net, was, isChanged: true, moved }
  })
}

/**
 * Moves what belongs to which requisition line by so much: less is taken from the last backwards, more is given to the
 * first that still needs something. Of what is beyond that, the last one gets it, and has less than nothing open.
 */
export function moveSources(sources: readonly StandingSource[], by: Decimal): Pick<ChangedLine, 'sources' | 'moved'> {
  const isMore = by.isPositive()
  const order = isMore ? sources.map((_, i) => i) : sources.map((_, i) => sources.length - 1 - i)
  const moves = sources.map(() => NOTHING)
  let left = isMore ? by : by.negated()
  order.forEach((at, n) => {
    const source = sources[at]
    if (source === undefined) return
    const room = dec(isMore ? source.open : source.quantity)
    const isLast = n === order.length - 1
    const part = left.lte(room) || isLast ? left : room
    moves[at] = isMore ? part : part.negated()
    left = left.minus(part)
  })
  return {
    sources: sources.map((s, i) => ({
      ...s,
      quantity: dec(s.quantity)
        .plus(moves[i] ?? NOTHING)
        .toFixed(),
      open: dec(s.open)
        .minus(moves[i] ?? NOTHING)
        .toFixed(),
    })),
    moved: sources.flatMap((s, i) => {
      const m = moves[i] ?? NOTHING
      return m.isZero() ? [] : [{ requisitionLineId: s.requisitionLineId, by: m.toFixed() }]
    }),
  }
}

export type ChangeReason =
  | IssueReason
  | BeyondBlanket
  | AfterTheEnd
  /** Less than was called off already: a quantity, or an amount of a line by amount. */
  | {
      readonly code: 'below-called-off'
      readonly stops: true
      readonly description: string
      readonly called: DecimalText
      readonly unit: string
      readonly currency: string
    }
  /** What is called off costs what its blanket order says. */
  | { readonly code: 'price-of-blanket'; readonly stops: true; readonly description: string }
  /** So does what is taken off it, or put on it. */
  | { readonly code: 'adjustments-of-blanket'; readonly stops: true }
  | (AdjustmentReason & { readonly stops: true })
  | { readonly code: 'change-waits' | 'nothing-changes'; readonly stops: true }
  /** The last day that it is to have. */
  | { readonly code: 'end-is-past'; readonly stops: true; readonly on: Day }
  /** More than the requisitions behind a line still ask for. */
  | {
      readonly code: 'more-than-asked'
      readonly stops: true
      readonly description: string
      readonly most: DecimalText
      readonly unit: string
    }
  | {
      readonly code: 'below-done'
      readonly stops: true
      readonly description: string
      readonly done: DecimalText
      readonly unit: string
    }
  /** A line that was taken off comes back only as a line of an order that is laid anew. */
  | { readonly code: 'line-is-off' | 'day-is-past'; readonly stops: true; readonly description: string }

export interface OrderChangeFacts {
  readonly state: OrderState
  readonly currency: string
  readonly baseCurrency: string
  /** Units of its currency for one of the base, at which it was issued: it keeps that. */
  readonly perBase: DecimalText
  readonly lines: readonly ChangedLine[]
  /** Each line with what it bears of discounts and charges. */
  readonly ordered: readonly Money[]
  /** What was approved of each line's requisitions for as much as it orders now, in the base currency. */
  readonly approved: readonly Money[]
  /** With freight: as it stands, and after the change. */
  readonly netBefore: Money
  readonly net: Money
  /** After it, the lines alone; and what is taken off the whole. */
  readonly goods: Money
  readonly discounts: Money
  /** What is to be taken off the whole, or put on it, where that is another. */
  readonly adjustments: readonly OrderAdjustment[] | null
  readonly today: Day
  /** Another change of it is under way already. */
  readonly isWaiting: boolean
  /** What besides its lines is to be another: where it goes. */
  readonly movesShipTo: boolean
  /** Its last day, where that is to be another. */
  readonly endsOn: Day | null
  readonly supplier: { readonly name: string; readonly isBlocked: boolean; readonly channel: 'e-mail' }
  readonly isReachable: boolean
  readonly buyerId: string
  readonly needs: readonly (readonly string[])[]
  readonly authority: Authority
  /** On which it draws already; that it fits was seen when it was issued, or linked. */
  readonly agreement: Omit<OrderAgreement, 'misfits'> | null
  /** Of a call-off: the last day of its blanket order, which was decided on and holds its money; null elsewhere. */
  readonly calledFrom: { readonly expiresOn: Day | null } | null
}

/** Whether an order says nothing any more once it is changed: every line of it is off. */
export const cancelsWhole = (lines: readonly Pick<ChangedLine, 'quantity'>[]): boolean =>
  lines.every((l) => dec(l.quantity).isZero())

/** Whether a change makes an order, or any line of it, dearer than it stands. */
const isDearer = (f: Pick<OrderChangeFacts, 'lines' | 'net' | 'netBefore'>): boolean =>
  compare(f.net, f.netBefore) > 0 || f.lines.some((l) => compare(l.net, l.was.net) > 0)

/**
 * Whether an issued order may be changed like this by its buyer, with everything that stands in the way. What makes
 * nothing dearer asks nobody; what does is held against what was decided last, not against what stands.
 */
export function decideOrderChange(f: OrderChangeFacts): Verdict<'changed', ChangeReason> {
  const reasons: ChangeReason[] = []
  const isOver = cancelsWhole(f.lines)
  if (!isOrderMoveFrom(isOver ? 'cancel' : 'change', f.state))
    reasons.push({ code: 'order-state', stops: true, state: f.state })
  if (f.isWaiting) reasons.push({ code: 'change-waits', stops: true })
  if (f.endsOn !== null && isExpired(f.endsOn, f.today))
    reasons.push({ code: 'end-is-past', stops: true, on: f.endsOn })
  reasons.push(...adjustmentsReasons(f))
  if (!f.movesShipTo && f.endsOn === null && f.adjustments === null && f.lines.every((l) => !l.isChanged))
    reasons.push({ code: 'nothing-changes', stops: true })
  for (const line of f.lines.filter((l) => l.isChanged)) {
    const { description, unit } = line
    if (dec(line.was.quantity).isZero()) reasons.push({ code: 'line-is-off', stops: true, description })
    else if (line.sources.some((s) => dec(s.open).isNegative()))
      reasons.push({ code: 'more-than-asked', stops: true, description, most: mostOf(line), unit })
    if (line.needBy !== line.was.needBy && line.needBy < f.today)
      reasons.push({ code: 'day-is-past', stops: true, description })
    if (dec(line.quantity).lt(dec(line.done)))
      reasons.push({ code: 'below-done', stops: true, description, done: line.done, unit })
    reasons.push(...blanketReasons(line, f))
  }
  reasons.push(...discountReasons(f))
  const { name: supplier, channel } = f.supplier
  if (!f.isReachable) reasons.push({ code: 'supplier-unreachable', stops: true, supplier, channel })
  if (!isDearer(f)) return verdict<'changed', ChangeReason>('changed', reasons)
  if (f.supplier.isBlocked) reasons.push({ code: 'supplier-blocked', stops: true, supplier })
  if (f.calledFrom !== null) return verdict<'changed', ChangeReason>('changed', reasons)
  if (f.needs.length > 0 && f.needs.every((people) => people.includes(f.buyerId)))
    reasons.push({ code: 'own-need-alone', stops: true })
  if (f.agreement !== null) reasons.push(...drawReasons({ ...f.agreement, misfits: [] }, subtract(f.net, f.netBefore)))
  reasons.push(
    ...authorityReasons({
      ...f.authority,
      perBase: f.perBase,
      baseCurrency: f.baseCurrency,
      amount: convert(f.net, f.perBase, f.baseCurrency),
      lines: f.lines.map((l, i) => ({
        description: l.description,
        ordered: f.ordered[i] ?? l.net,
        approved: f.approved[i] ?? convert(l.net, f.perBase, f.baseCurrency),
      })),
    }),
  )
  return verdict<'changed', ChangeReason>('changed', reasons)
}

/** What stands in the way of taking something else off the whole, or putting it on. */
function adjustmentsReasons({ adjustments, calledFrom, currency }: OrderChangeFacts): ChangeReason[] {
  if (adjustments === null) return []
  if (calledFrom !== null) return [{ code: 'adjustments-of-blanket', stops: true }]
  return adjustmentReasons(adjustments, currency).map((r) => ({ ...r, stops: true }))
}

/** As much as a line may order: what it does, and what its requisitions still ask for besides. */
function mostOf(line: ChangedLine): DecimalText {
  return line.sources.reduce((s, x) => s.plus(dec(x.quantity)).plus(dec(x.open)), NOTHING).toFixed()
}

/** What a changed line of a blanket order, or of a call-off, keeps to. */
function blanketReasons(
  line: ChangedLine,
  { calledFrom, currency }: Pick<OrderChangeFacts, 'calledFrom' | 'currency'>,
): ChangeReason[] {
  const reasons: ChangeReason[] = []
  const { description, unit, called = null, mostOfBlanket: most = null } = line
  const much = dec(muchOf(unit, line))
  if (called !== null && much.lt(dec(muchOf(unit, called))))
    reasons.push({
      code: 'below-called-off',
      stops: true,
      description,
      called: muchOf(unit, called),
      unit,
      currency,
    })
  if (most !== null && dec(most).lt(much))
    reasons.push({ code: 'beyond-blanket', stops: true, description, most, unit, currency })
  if (calledFrom === null) return reasons
  if (!isByAmount(unit) && !dec(line.unitPrice).eq(dec(line.was.unitPrice)))
    reasons.push({ code: 'price-of-blanket', stops: true, description })
  const { expiresOn: on } = calledFrom
  if (on !== null && line.needBy !== line.was.needBy && isExpired(on, line.needBy))
    reasons.push({ code: 'after-the-end', stops: true, description, on })
  return reasons
}
