import { moneyOf, zero } from '#core/base/money'
import type { BlanketLine } from '#core/order/call-off'
import type { Tx } from '../db/client'
import { listCalled } from './call-off-reads'
import { keptAdjustments } from './more-of-line'
import { listOrderLines, type OrderLineRow } from './page-reads'

/** The lines of a blanket order as they stand, each with what of it was called off. */
export async function readBlanketLines(
  tx: Tx,
  blanketId: string,
  currency: string,
): Promise<(BlanketLine & { readonly kept: OrderLineRow })[]> {
  const [lines, called] = [await listOrderLines(tx, blanketId), await listCalled(tx, blanketId)]
  return lines.map((kept) => {
    const { id, description, unit, quantity, unitPrice, priceBase } = kept
    const of = called.get(id)
    return {
      ...{ id, description, unit, quantity, unitPrice, priceBase, adjustments: keptAdjustments(kept), kept },
      net: moneyOf(kept.net, currency),
      called:
        of === undefined
          ? { quantity: '0', net: zero(currency) }
          : { quantity: of.quantity, net: moneyOf(of.net, currency) },
    }
  })
}
