import { add, moneyOf, subtract, type Money } from '#core/base/money'
import type { OrderSums } from '#core/order/order-sums'
import type { LaidAdjustment } from '#shared/contract/order-conditions'
import type { Tx } from '../db/client'
import type { OrderRow } from './reads'
import { findSentAdjustments } from './sending-reads'

interface PartsOfNet {
  readonly goods: Money
  readonly adjustments: LaidAdjustment[]
  readonly freight: Money
}

/** What an order comes to before tax, part by part, as it is computed now. */
export const viewParts = ({ goods, adjustments, freight }: Omit<OrderSums, 'adjusted' | 'borne'>): PartsOfNet => ({
  ...{ goods, freight },
  adjustments: adjustments.map(({ kind, name, percent, base, amount }) => ({ kind, name, percent, base, amount })),
})

/** What an issued order comes to before tax, part by part, as it was sent last. */
export async function readParts(tx: Tx, order: OrderRow): Promise<PartsOfNet> {
  const { currency } = order
  const adjustments = (await findSentAdjustments(tx, order.id)).map(({ kind, name, percent, of, amount }) => ({
    ...{ kind, name, percent, base: moneyOf(of, currency), amount: moneyOf(amount, currency) },
  }))
  const freight = moneyOf(order.freight, currency)
  const before = adjustments.reduce(
    (goods, a) => (a.kind === 'discount' ? add(goods, a.amount) : subtract(goods, a.amount)),
    subtract(moneyOf(order.net ?? '0', currency), freight),
  )
  return { goods: before, adjustments, freight }
}
