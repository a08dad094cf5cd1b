import type { DecimalText } from '#core/base/decimal'
import { compare, exchange, isZero, moneyOf, type Money } from '#core/base/money'
import type { FreightTerms } from './freight'

/** What a supplier asks of an order, in its own currency. */
export interface SupplierTerms {
  readonly currency: string
  readonly freight: DecimalText | null
  readonly freightFreeFrom: DecimalText | null
  readonly minimumOrder: DecimalText | null
}

/** The same in an order's currency. */
export interface OrderTerms extends FreightTerms {
  /** The least value of goods, without freight and tax, that it takes an order for; null: any. */
  readonly minimum: Money | null
}

/**
 * What a supplier asks of an order in a currency; null where it asks for freight and no rate leads there. `perBase`
 * holds units of a currency for one of the base.
 */
export function termsIn(
  supplier: SupplierTerms,
  currency: string,
  perBase: ReadonlyMap<string, DecimalText>,
): OrderTerms | null {
  const [from, to] = [perBase.get(supplier.currency), perBase.get(currency)]
  const isReached = supplier.currency === currency || (from !== undefined && to !== undefined)
  if (supplier.freight !== null && !isReached) return null
  const inOrders = (amount: DecimalText | null): Money | null =>
    amount === null
      ? null
      : exchange(moneyOf(amount, supplier.currency), { from: from ?? '1', to: to ?? '1' }, currency)
  // A minimum that no rate leads to is not judged.
  const minimum = isReached ? inOrders(supplier.minimumOrder) : null
  return {
    freight: inOrders(supplier.freight),
    freeFrom: inOrders(supplier.freightFreeFrom),
    minimum: minimum === null || isZero(minimum) ? null : minimum,
  }
}

/** The supplier's minimum, where goods are worth less; null where they reach it, or it asks for none. */
export function minimumMissed(goods: Money, { minimum }: Pick<OrderTerms, 'minimum'>): Money | null {
  return minimum !== null && compare(goods, minimum) < 0 ? minimum : null
}
