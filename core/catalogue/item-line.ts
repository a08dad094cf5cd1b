import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import { priceFor, type PriceStep } from './price'

/** An item as far as a line that asks for it takes it over. */
export interface LineItem {
  readonly id: string
  readonly categoryId: string
  readonly name: string
  readonly unit: string
  readonly priceBase: DecimalText
  readonly currency: string
  readonly taxCode: string
  readonly supplierId: string
  readonly supplierPart: string
  readonly prices: readonly PriceStep[]
}

/** What a line says of a catalogue item, at the price that its quantity reaches on a day; null where it has none. */
export function itemLine(item: LineItem, quantity: DecimalText, day: Day) {
  const price = priceFor(item.prices, quantity, day)?.unitPrice ?? null
  return {
    itemId: item.id,
    categoryId: item.categoryId,
    description: item.name,
    quantity,
    unit: item.unit,
    unitPrice: price,
    listPrice: price,
    priceBase: item.priceBase,
    currency: item.currency,
    taxCode: item.taxCode,
    supplierId: item.supplierId,
    supplierPart: item.supplierPart,
  }
}
