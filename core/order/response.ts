import { dec, isDecimalText, type DecimalText } from '#core/base/decimal'
import { isDay, type Day } from '#core/base/day'
import { withoutPunctuation } from '#core/base/without-punctuation'
import { verdict, type Verdict } from '#core/base/verdict'
import type { LineWish, StandingLine } from './change'

/** What a supplier's program says of a line, whatever the format it came in. */
export interface ResponseLine {
  /** The place of the line on the order, from 1. */
  readonly number: string
  readonly status: 'accepted' | 'changed' | 'refused' | 'added'
  /** Null: as ordered. */
  readonly quantity: DecimalText | null
  readonly unit: string | null
  readonly unitPrice: DecimalText | null
  readonly priceBase: DecimalText | null
  /** By when it comes. */
  readonly day: Day | null
}

/** A supplier's answer to an order as the message that it is. */
export interface ResponseMessage {
  readonly order: string
  /** What it says of the whole; `only-arrived` answers nothing. */
  readonly says: 'accepted' | 'refused' | 'with changes' | 'only-arrived'
  readonly by: string
  readonly note: string
  /** "" where it names none. */
  readonly currency: string
  /** By when all of it comes, where the lines do not say. */
  readonly day: Day | null
  readonly lines: readonly ResponseLine[]
}

export type ResponseReason =
  | { readonly code: 'other-order'; readonly stops: true; readonly names: string }
  | { readonly code: 'other-currency'; readonly stops: true; readonly names: string }
  | { readonly code: 'only-arrived'; readonly stops: true }
  | { readonly code: 'line-added' | 'other-unit' | 'unknown-line'; readonly stops: true; readonly line: string }
  | { readonly code: 'unreadable'; readonly stops: true; readonly line: string; readonly text: string }

type RespondedLine = Pick<StandingLine, 'id' | 'quantity' | 'unit' | 'unitPrice' | 'priceBase' | 'needBy'>

/**
 * What a message answers to the lines of an order, which keep their places through every revision. A price for another
 * base quantity is turned into one for the order's. Everything that stands in the way is said.
 */
export function answerOfMessage(
  m: ResponseMessage,
  order: { readonly number: string; readonly currency: string; readonly lines: readonly RespondedLine[] },
): Verdict<LineWish[], ResponseReason> {
  const reasons: ResponseReason[] = []
  if (withoutPunctuation(m.order) !== withoutPunctuation(order.number))
    reasons.push({ code: 'other-order', stops: true, names: m.order })
  if (m.currency !== '' && m.currency !== order.currency)
    reasons.push({ code: 'other-currency', stops: true, names: m.currency })
  if (m.says === 'only-arrived') reasons.push({ code: 'only-arrived', stops: true })
  const said = new Map<string, ResponseLine>()
  for (const line of m.lines) {
    const at = order.lines[Number(line.number) - 1]
    const about = { stops: true, line: line.number } as const
    if (line.status === 'added') reasons.push({ code: 'line-added', ...about })
    else if (at === undefined) reasons.push({ code: 'unknown-line', ...about })
    else {
      for (const text of [line.quantity, line.unitPrice, line.priceBase])
        if (text !== null && (!isDecimalText(text) || text.startsWith('-')))
          reasons.push({ code: 'unreadable', ...about, text })
      if (line.day !== null && !isDay(line.day)) reasons.push({ code: 'unreadable', ...about, text: line.day })
      if (line.unit !== null && line.unit !== at.unit) reasons.push({ code: 'other-unit', ...about })
      if (line.priceBase !== null && isDecimalText(line.priceBase) && dec(line.priceBase).isZero())
        reasons.push({ code: 'unreadable', ...about, text: line.priceBase })
      said.set(at.id, line)
    }
  }
  if (m.day !== null && !isDay(m.day)) reasons.push({ code: 'unreadable', stops: true, line: '', text: m.day })
  if (reasons.length > 0) return { value: null, reasons }
  const lines = order.lines.flatMap((l): LineWish[] => {
    if (dec(l.quantity).isZero()) return []
    const is = said.get(l.id)
    const status = m.says === 'refused' ? 'refused' : (is?.status ?? 'accepted')
    const day = is?.day ?? m.day ?? l.needBy
    if (status === 'refused') return [{ lineId: l.id, quantity: '0', unitPrice: l.unitPrice, needBy: l.needBy }]
    if (status === 'accepted') return [{ lineId: l.id, quantity: l.quantity, unitPrice: l.unitPrice, needBy: day }]
    return [
      {
        lineId: l.id,
        quantity: is?.quantity ?? l.quantity,
        unitPrice: priceFor(l, is?.unitPrice, is?.priceBase),
        needBy: day,
      },
    ]
  })
  return verdict<LineWish[], ResponseReason>(lines, [])
}

/** A price for so many, as one for the order's base quantity; what is not said is as ordered. */
function priceFor(line: RespondedLine, price: DecimalText | null = null, base: DecimalText | null = null): DecimalText {
  if (price === null) return line.unitPrice
  return dec(price)
    .times(dec(line.priceBase))
    .dividedBy(dec(base ?? '1'))
    .toPlaces(6)
    .toFixed()
}
