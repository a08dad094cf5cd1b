import { dayOf } from '#core/base/day'
import { dec } from '#core/base/decimal'
import { isOrderMoveFrom } from '#core/order/moves'
import { moneyOf } from '#core/base/money'
import type { AskedOrder } from '#shared/contract/order-answer'
import { sayConditions } from '#shared/words/conditions'
import { OUTWARD } from '#shared/words/ways'
import type { Context } from '../context'
import { requireOrganisation } from '../settings/reads'
import { requireByKey } from './answer-order'
import { listAnswers } from './answer-reads'
import { listSent } from './change-reads'
import { listOrderLines } from './page-reads'
import { conditionsOf } from './reads'
import { readParts } from './view-parts'

/** An order as its supplier reads and answers it: what was sent, and nothing of what is said within. */
export async function readAskedOrder(ctx: Context, key: string): Promise<AskedOrder> {
  const o = await requireByKey(ctx, key, false)
  const { name, timeZone } = await requireOrganisation(ctx.tx)
  const sent = (await listSent(ctx.tx, o.id)).find((v) => v.revision === o.revision)?.snapshot
  if (sent === undefined) throw new Error('an issued order has no sent state')
  const lines = await listOrderLines(ctx.tx, o.id)
  const [answer] = (await listAnswers(ctx.tx, o.id)).filter((a) => a.outcome !== 'replaced')
  const isOpen = isOrderMoveFrom('acknowledge', o.state)
  // One that holds may have made the revision that stands.
  const isOfThis = answer !== undefined && (answer.revision === o.revision || o.state === 'acknowledged')
  return {
    number: o.number ?? '',
    revision: o.revision,
    state: !isOpen
      ? 'over'
      : o.state === 'acknowledged'
        ? 'holds'
        : isOfThis && answer.outcome === 'waits'
          ? 'waits'
          : 'open',
    organisation: name,
    buyer: o.buyer,
    buyerEmail: sent.replyTo ?? '',
    supplier: o.supplier,
    shipTo: [sent.shipTo.name, sent.shipTo.address, ...sent.shipTo.details].join(', '),
    terms: sayConditions(conditionsOf(o), OUTWARD, ''),
    ...{ placedAs: o.placedAs, calledFrom: o.blanket },
    currency: o.currency,
    net: moneyOf(o.net ?? '0', o.currency),
    ...(await readParts(ctx.tx, o)),
    today: dayOf(ctx.now, timeZone),
    lines: lines.flatMap((l, i) => {
      if (dec(l.quantity).isZero()) return []
      const { id, description, supplierPart, quantity, unit, unitPrice, priceBase, needBy } = l
      const more = sent.lines[i]?.more ?? []
      const net = moneyOf(l.net, o.currency)
      return [{ id, description, more: [...more], supplierPart, quantity, unit, unitPrice, priceBase, needBy, net }]
    }),
    answer: isOfThis
      ? {
          ...{ by: answer.byName, note: answer.note, said: answer.said, outcome: answer.outcome },
          lines: [...answer.lines],
        }
      : null,
  }
}
