import { convert, covers } from '#core/base/money'
import { partOf } from '#core/people/rights'
import type { OpenLine } from '#core/order/consolidate'
import type { ProposalOptions, ProposedOrder } from '#core/order/propose'
import { byRequisition } from '#core/order/worth'
import type { ProposalAsked, proposalRoutes, ProposedOrderView } from '#shared/contract/proposal'
import type { Reply } from '#shared/contract/all-routes'
import { sayLeft } from '#shared/words/proposal'
import { waysOf } from '#shared/words/ways'
import { listPriceSteps } from '../catalogue/reads'
import type { Context } from '../context'
import { inWorkshop } from '../files/workshop'
import { reachPeople } from '../people/person-reads'
import { requireTerms } from '../settings/reads'
import { takenOff } from './compute-tray'
import { agreementOfLines } from './drawing'
import { listOpenLines, listOrderTerms, type OpenLineRow } from './proposal-reads'

/** The oldest so many lines are proposed at once; the others come up as these are ordered. */
const MOST_LINES = 20_000

/** Orders that would be made of the lines that wait in the buyer's part; nothing is written. */
export async function proposeOrders(
  ctx: Context,
  asked: ProposalAsked,
): Promise<Reply<(typeof proposalRoutes)['proposeOrders']>> {
  const { tx, now, actor } = ctx
  const { organisation, today, ...terms } = await requireTerms(tx, now)
  const perBase = new Map(terms.perBase)
  const { baseCurrency } = organisation
  const found = await listOpenLines(tx, partOf(actor.grants, 'order'), MOST_LINES + 1)
  const rows = new Map(found.slice(0, MOST_LINES).map((l) => [l.id, l]))
  const idsOf = (of: (l: OpenLineRow) => string | null) => [...new Set([...rows.values()].flatMap((l) => of(l) ?? []))]
  const agreementOf = await agreementOfLines(tx, [...rows.values()], today)
  const openLines = [...rows.values()].map((row) => ({ ...openLineOf(row), agreementId: agreementOf(row)?.id ?? null }))
  const proposal = await inWorkshop('propose-orders', openLines, optionsOf(asked), {
    today,
    baseCurrency,
    perBase,
    prices: await listPriceSteps(
      tx,
      idsOf((l) => l.itemId),
    ),
    suppliers: await listOrderTerms(
      tx,
      idsOf((l) => l.supplierId),
    ),
  })
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
    isAll: found.length <= MOST_LINES,
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

function openLineOf(row: OpenLineRow): Omit<OpenLine, 'agreementId'> {
  return {
    requisitionLineId: row.id,
    requisitionId: row.requisitionId,
    number: row.number,
    sentOn: row.sentOn,
    supplierId: row.supplierId,
    departmentId: row.departmentId,
    quantity: row.open,
    requested: row.requested,
    itemId: row.itemId,
    description: row.description,
    secondDescription: row.secondDescription,
    noteToSupplier: row.noteToSupplier,
    unit: row.unit,
    unitPrice: row.unitPrice,
    isByHand: row.isByHand,
    adjustments: takenOff(row),
    priceBase: row.priceBase,
    currency: row.currency,
    taxCode: row.taxCode,
    supplierPart: row.supplierPart,
    needBy: row.needBy,
    shipToId: row.shipToId,
  }
}
