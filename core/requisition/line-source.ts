import type { DraftLine } from './draft'

/** Where lines can be taken from, in the order in which they are offered. A new source begins with a name here. */
export const LINE_SOURCES = ['regulars', 'bought', 'requests', 'orders', 'templates'] as const
export type LineSource = (typeof LINE_SOURCES)[number]

/** What a list of regulars keeps of a line: enough to ask for it again, not what it was for. */
export type Regular = Pick<
  DraftLine,
  | 'itemId'
  | 'description'
  | 'quantity'
  | 'unit'
  | 'unitPrice'
  | 'priceBase'
  | 'currency'
  | 'taxCode'
  | 'supplierId'
  | 'supplierPart'
>

export function asRegular({
  itemId,
  description,
  quantity,
  unit,
  unitPrice,
  priceBase,
  currency,
  taxCode,
  supplierId,
  supplierPart,
}: DraftLine): Regular {
  return { itemId, description, quantity, unit, unitPrice, priceBase, currency, taxCode, supplierId, supplierPart }
}
