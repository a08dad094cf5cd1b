import { convert, covers } from '#core/base/money'
import type { ProposalOptions, ProposedOrder } from '#core/order/propose'
import { byRequisition } from '#core/order/worth'
import type { ProposalAsked, proposalRoutes, ProposedOrderView } from '#shared/contract/proposal'
import type { Reply } from '#shared/contract/all-routes'
import { sayLeft } from '#shared/words/proposal'
import { waysOf } from '#shared/words/ways'
import type { Context } from '../context'
import { reachPeople } from '../people/person-reads'
import { computeProposal } from './compute-proposal'

/** Orders that would be made of the lines that wait in the buyer's part; nothing is written. */
export async function proposeOrders(
  ctx: Context,
  asked: ProposalAsked,
): Promise<Reply<(typeof proposalRoutes)['proposeOrders']>> {
  const { tx, actor } = ctx
  const { proposal, rows, isAll, agreementOf, perBase, baseCurrency, today } = await computeProposal(
    ctx,
    optionsOf(asked),
  )
  const { people } = await reachPeople(tx, [actor.id], baseCurrency, today)
  const limit = people.find((p) => p.id === actor.id)?.orderingLimit ?? null
  const view = (o: ProposedOrder): ProposedOrderView => {
    const own = o.parts.flatMap((p) => rows.get(p.requisitionLineId) ?? [])
    const [first] = own
    return {
      key: o.parts[0]?.requisitionLineId ?? '',
      supplierId: o.supplierId,
      supplier: first?.supplier ?? '',
      shipToId: o.shipToId,
      shipTo: first?.shipTo ?? '',
      department: asked.by === 'department' ? (first?.department ?? null) : null,
      currency: o.currency,
      agreement: first === undefined ? null : (agreementOf(first)?.number ?? null),
      needBy: o.needBy,
      goods: o.worth.goods,
      freight: o.worth.freight,
      net: o.worth.net,
      saved: o.saved,
      belowMinimum: o.belowMinimum,
      isAboveLimit: !covers(limit, convert(o.worth.net, perBase.get(o.currency) ?? '1', baseCurrency)),
      isOwnNeed: own.every((l) => l.owners.includes(actor.id)),
      requests: byRequisition(o.parts).flatMap(([l]) =>
        l === undefined ? [] : [{ id: l.requisitionId, number: l.number }],
      ),
      lines: o.worth.lines.map((l) => ({
        description: l.description,
        quantity: l.quantity,
        unit: l.unit,
        unitPrice: l.unitPrice,
        priceBase: l.priceBase,
        net: l.net,
        requests: new Set(l.sources.map((s) => rows.get(s.requisitionLineId)?.requisitionId)).size,
      })),
      parts: o.parts.map((p) => ({ lineId: p.requisitionLineId, quantity: p.quantity })),
    }
  }
  const left = new Map<string, Reply<(typeof proposalRoutes)['proposeOrders']>['left'][number]['lines']>()
  for (const { line, reason } of proposal.left) {
    const says = sayLeft(reason, today, waysOf(actor.locale))
    const { requisitionLineId: lineId, requisitionId, number, description, quantity, unit } = line
    const supplier = rows.get(lineId)?.supplier ?? null
    const lines = left.get(says) ?? []
    lines.push({ lineId, requisitionId, number, description, quantity, unit, supplier })
    left.set(says, lines)
  }
  return {
    currency: baseCurrency,
    lines: rows.size,
    isAll,
    orders: proposal.orders.map(view),
    left: [...left].map(([reason, lines]) => ({ reason, lines })),
    net: proposal.net,
    saved: proposal.saved,
    belowOldest: proposal.belowOldest,
  }
}

const optionsOf = (asked: ProposalAsked): ProposalOptions => ({
  windowDays: asked.within ?? null,
  mostRequests: asked.mostRequests ?? null,
  byDepartment: asked.by === 'department',
  choose: asked.choose,
  waitFor: asked.waitFor === undefined ? null : { value: asked.waitFor, days: asked.waitDays },
})
