import { dec, type DecimalText } from '#core/base/decimal'
import type { Day } from '#core/base/day'
import type { OrderAdjustment } from './adjustment'

/** An order as it was sent, or as it is to be: what two of its states are compared by. */
export interface OrderStand {
  readonly lines: readonly {
    readonly description: string
    readonly quantity: DecimalText
    readonly unit: string
    readonly unitPrice: DecimalText
    readonly needBy: Day
    readonly net: DecimalText
  }[]
  readonly shipTo: string
  /** Its last day; null: it has none. */
  readonly expiresOn: Day | null
  readonly freight: DecimalText
  /** What is taken off the whole, or put on it: as a percentage, or an amount; by tax, or whole. */
  readonly adjustments: readonly AdjustmentStand[]
  readonly net: DecimalText
  readonly currency: string
}

interface AdjustmentStand {
  readonly kind: OrderAdjustment['kind']
  readonly name: string
  readonly percent: DecimalText | null
  readonly amount: DecimalText
}

export type OrderDifference =
  | {
      readonly what: 'adjustment'
      readonly kind: OrderAdjustment['kind']
      readonly name: string
      readonly currency: string
      /** Null: nothing. */
      readonly was: AdjustmentValue | null
      readonly is: AdjustmentValue | null
    }
  | {
      readonly what: 'quantity'
      /** The line, from 1. */
      readonly line: number
      readonly description: string
      readonly unit: string
      readonly was: DecimalText
      readonly is: DecimalText
    }
  | {
      readonly what: 'price'
      readonly line: number
      readonly description: string
      readonly currency: string
      readonly was: DecimalText
      readonly is: DecimalText
    }
  | { readonly what: 'day'; readonly line: number; readonly description: string; readonly was: Day; readonly is: Day }
  | { readonly what: 'ship-to'; readonly was: string; readonly is: string }
  /** Its last day. */
  | { readonly what: 'end'; readonly was: Day | null; readonly is: Day }
  | {
      readonly what: 'freight'
      readonly currency: string
      readonly was: DecimalText
      readonly is: DecimalText
    }

/** A percentage, or else an amount. */
export interface AdjustmentValue {
  readonly percent: DecimalText | null
  readonly amount: DecimalText
}

/**
 * What is taken off, or put on, otherwise. Of a percentage what it comes to follows the goods and is no difference;
 * nor is that nothing is taken off an order that is over.
 */
function compareAdjustments(was: OrderStand, is: OrderStand): OrderDifference[] {
  if (is.lines.every((l) => dec(l.quantity).isZero())) return []
  const [before, now] = [byName(was.adjustments), byName(is.adjustments)]
  return [...new Map([...before, ...now])].flatMap(([key, { kind, name }]) => {
    const [a, b] = [before.get(key) ?? null, now.get(key) ?? null]
    const isSame = a !== null && b !== null && a.percent === b.percent && (a.percent !== null || a.amount === b.amount)
    const valueOf = (of: AdjustmentStand | null) => of && { percent: of.percent, amount: of.amount }
    return isSame
      ? []
      : [{ what: 'adjustment' as const, kind, name, currency: is.currency, was: valueOf(a), is: valueOf(b) }]
  })
}

/** Each with what it comes to over all taxes. */
function byName(adjustments: readonly AdjustmentStand[]): Map<string, AdjustmentStand> {
  const found = new Map<string, AdjustmentStand>()
  for (const { kind, name, percent, amount } of adjustments) {
    const key = `${kind} ${name}`
    const sum = dec(found.get(key)?.amount ?? '0')
      .plus(dec(amount))
      .toFixed()
    found.set(key, { kind, name, percent, amount: sum })
  }
  return found
}

/**
 * What one state of an order says otherwise than an earlier one, line by line, then what is of the whole. Lines keep
 * their places: one that was taken off stands there with a quantity of 0, of which nothing else is told.
 */
export function compareOrders(was: OrderStand, is: OrderStand): OrderDifference[] {
  const { currency } = is
  const found = is.lines.flatMap((now, i): OrderDifference[] => {
    const before = was.lines[i]
    const about = { line: i + 1, description: now.description }
    if (before === undefined) return [{ what: 'quantity', ...about, unit: now.unit, was: '0', is: now.quantity }]
    const isOther = (pick: (l: OrderStand['lines'][number]) => DecimalText) => !dec(pick(before)).eq(dec(pick(now)))
    const quantity: OrderDifference[] = isOther((l) => l.quantity)
      ? [{ what: 'quantity', ...about, unit: now.unit, was: before.quantity, is: now.quantity }]
      : []
    if (dec(now.quantity).isZero()) return quantity
    return [
      ...quantity,
      ...(isOther((l) => l.unitPrice)
        ? [{ what: 'price' as const, ...about, currency, was: before.unitPrice, is: now.unitPrice }]
        : []),
      ...(before.needBy === now.needBy ? [] : [{ what: 'day' as const, ...about, was: before.needBy, is: now.needBy }]),
    ]
  })
  return [
    ...found,
    ...(was.shipTo === is.shipTo ? [] : [{ what: 'ship-to' as const, was: was.shipTo, is: is.shipTo }]),
    ...(is.expiresOn === null || was.expiresOn === is.expiresOn
      ? []
      : [{ what: 'end' as const, was: was.expiresOn, is: is.expiresOn }]),
    ...(dec(was.freight).eq(dec(is.freight))
      ? []
      : [{ what: 'freight' as const, currency, was: was.freight, is: is.freight }]),
    ...compareAdjustments(was, is),
  ]
}
