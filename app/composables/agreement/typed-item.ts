import { dec, type DecimalText } from '#core/base/decimal'
import { moneyOf } from '#core/base/money'

/** A price with at least the decimals of its currency, as it is typed over. */
export const fullPrice = (price: DecimalText, currency: string): DecimalText => {
  const full = moneyOf(price, currency).amount
  return dec(full).eq(dec(price)) ? full : price
}

/** An item of an agreement while it is written: its price as it is typed, "" where none is agreed. */
export interface TypedItem {
  readonly itemId: string
  readonly name: string
  readonly supplierPart: string
  /** What the catalogue asks for it today. */
  readonly catalogue: string | null
  price: string
}
