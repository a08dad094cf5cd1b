import type { DecimalText } from '#core/base/decimal'
import { exchange, moneyOf } from '#core/base/money'
import type { FreightTerms } from '#core/order/freight'
import type { OrderRow } from './reads'

/** The supplier's freight in the order's currency; null where no rate leads there. */
export function freightTermsOf(order: OrderRow, rates: ReadonlyMap<string, DecimalText>): FreightTerms | null {
  const [from, to] = [rates.get(order.supplierCurrency), rates.get(order.currency)]
  const isSame = order.supplierCurrency === order.currency
  if (order.supplierFreight !== null && !isSame && (from === undefined || to === undefined)) return null
  const inOrders = (amount: DecimalText | null) =>
    amount === null
      ? null
      : exchange(moneyOf(amount, order.supplierCurrency), { from: from ?? '1', to: to ?? '1' }, order.currency)
  return { freight: inOrders(order.supplierFreight), freeFrom: inOrders(order.freightFreeFrom) }
}
