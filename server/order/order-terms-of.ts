import type { DecimalText } from '#core/base/decimal'
import { termsIn, type OrderTerms } from '#core/order/order-terms'
import type { OrderRow } from './reads'

/** What the supplier asks of an order, in the order's currency; null where no rate leads there. */
export function orderTermsOf(order: OrderRow, perBase: ReadonlyMap<string, DecimalText>): OrderTerms | null {
  const { supplierCurrency: currency, supplierFreight: freight, freightFreeFrom, minimumOrder } = order
  return termsIn({ currency, freight, freightFreeFrom, minimumOrder }, order.currency, perBase)
}
