import { dec } from '#core/base/decimal'
import type { Day } from '#core/base/day'
import { verdict, type Verdict } from '#core/base/verdict'
import type { LineWish, StandingLine } from './change'
import { compareOrders, type OrderDifference, type OrderStand } from './compare'
import { isOrderMoveFrom, type OrderState } from './moves'

/**
 * How a supplier's answer came: by the link in its mail, typed in by the buyer, who heard it, or as a document that its
 * own program wrote.
 */
export const ANSWER_WAYS = ['link', 'buyer', 'response'] as const
export type AnswerWay = (typeof ANSWER_WAYS)[number]

/**
 * What became of an answer: it waits for the buyer's yes; it holds; the buyer said no; or another came, or the order
 * was changed otherwise, before they said anything.
 */
export const ANSWER_OUTCOMES = ['waits', 'holds', 'declined', 'replaced'] as const
export type AnswerOutcome = (typeof ANSWER_OUTCOMES)[number]

/** A line as an answer finds it. */
export type AnsweredLine = Pick<StandingLine, 'id' | 'description' | 'unit' | 'quantity' | 'unitPrice' | 'needBy'>

export type AnswerReason =
  | { readonly code: 'order-state'; readonly stops: true; readonly state: OrderState }
  /** The order is another than the one that was answered. */
  | { readonly code: 'order-revised'; readonly stops: true; readonly revision: number }
  | { readonly code: 'answer-holds'; readonly stops: true }
  | { readonly code: 'unknown-line' | 'answered-too-often'; readonly stops: true }
  | { readonly code: 'day-is-past'; readonly stops: true; readonly description: string }

export interface AnswerFacts {
  readonly state: OrderState
  readonly revision: number
  readonly lines: readonly AnsweredLine[]
  readonly currency: string
  readonly today: Day
  /** The sent state that is answered. */
  readonly answered: number
  /** The buyer took an answer to this sent state already. */
  readonly isTaken: boolean
  /** How often the order was answered before. */
  readonly before: number
}

/** Nobody answers one order more often and means it; whoever has the mail could go on for ever. */
const MOST_ANSWERS = 50

/** An answer that may be given: every line as the supplier says it will be, and what of it is not as ordered. */
export interface Answered {
  readonly lines: readonly LineWish[]
  readonly differences: readonly OrderDifference[]
}

/**
 * Whether an order may be answered like this, with everything that stands in the way. Lines that are not named are
 * accepted as they stand, a quantity of 0 says that a line will not come. An earlier day than the one needed is a
 * promise and no difference; a later one, and any other quantity or price, waits for the buyer.
 */
export function decideAnswer(given: readonly LineWish[], f: AnswerFacts): Verdict<Answered, AnswerReason> {
  const reasons: AnswerReason[] = []
  if (!isOrderMoveFrom('acknowledge', f.state)) reasons.push({ code: 'order-state', stops: true, state: f.state })
  else if (f.answered !== f.revision) reasons.push({ code: 'order-revised', stops: true, revision: f.revision })
  else if (f.before >= MOST_ANSWERS) reasons.push({ code: 'answered-too-often', stops: true })
  else if (f.isTaken) reasons.push({ code: 'answer-holds', stops: true })
  const ordered = f.lines.filter((l) => !dec(l.quantity).isZero())
  if (given.some((g) => ordered.every((l) => l.id !== g.lineId))) reasons.push({ code: 'unknown-line', stops: true })
  const byLine = new Map(given.map((g) => [g.lineId, g]))
  const lines = ordered.map(
    (l): LineWish =>
      byLine.get(l.id) ?? { lineId: l.id, quantity: l.quantity, unitPrice: l.unitPrice, needBy: l.needBy },
  )
  ordered.forEach((l, i) => {
    const is = lines[i]
    if (is !== undefined && is.needBy < f.today && is.needBy !== l.needBy)
      reasons.push({ code: 'day-is-past', stops: true, description: l.description })
  })
  return verdict<Answered, AnswerReason>({ lines, differences: answerDifferences(ordered, lines, f.currency) }, reasons)
}

/** What of an answer is not as the order stands. */
export function answerDifferences(
  ordered: readonly AnsweredLine[],
  given: readonly LineWish[],
  currency: string,
): OrderDifference[] {
  const byLine = new Map(given.map((g) => [g.lineId, g]))
  const stand = (of: (l: AnsweredLine) => Pick<LineWish, 'quantity' | 'unitPrice' | 'needBy'>): OrderStand => ({
    lines: ordered.map(({ description, unit, ...l }) => {
      const { quantity, unitPrice, needBy } = of({ description, unit, ...l })
      return { description, unit, quantity, unitPrice, needBy, net: '0' }
    }),
    ...{ shipTo: '', expiresOn: null, freight: '0', adjustments: [], net: '0', currency },
  })
  const asGiven = (l: AnsweredLine) => {
    const is = byLine.get(l.id) ?? l
    return { ...is, needBy: is.needBy < l.needBy ? l.needBy : is.needBy }
  }
  return compareOrders(
    stand((l) => l),
    stand(asGiven),
  )
}

/**
 * Whether an order as it stands now says what a supplier answered, so that the answer holds for it: taken off is what
 * it refused, and nothing is asked for that it did not promise.
 */
export function holdsFor(lines: readonly AnsweredLine[], given: readonly LineWish[]): boolean {
  const byLine = new Map(given.map((g) => [g.lineId, g]))
  return lines.every((l) => {
    const is = byLine.get(l.id)
    if (is === undefined || dec(is.quantity).isZero()) return dec(l.quantity).isZero()
    return dec(is.quantity).eq(dec(l.quantity)) && dec(is.unitPrice).eq(dec(l.unitPrice)) && is.needBy <= l.needBy
  })
}

/** What the buyer changes an order to, who agrees to an answer: only what is not as it stands. */
export function wishesOf(ordered: readonly AnsweredLine[], given: readonly LineWish[]): LineWish[] {
  const byLine = new Map(given.map((g) => [g.lineId, g]))
  return ordered.flatMap((l) => {
    const is = byLine.get(l.id)
    if (is === undefined) return []
    const needBy = is.needBy < l.needBy || dec(is.quantity).isZero() ? l.needBy : is.needBy
    const isSame = dec(is.quantity).eq(dec(l.quantity)) && dec(is.unitPrice).eq(dec(l.unitPrice)) && needBy === l.needBy
    return isSame ? [] : [{ ...is, needBy }]
  })
}
