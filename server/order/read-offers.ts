import { addDays } from '#core/base/day'
import { dec, type DecimalText } from '#core/base/decimal'
import { inOrder, judgeOffer, othersThan, type LineToSource, type Offer } from '#core/order/offer'
import { partOf } from '#core/people/rights'
import type { Reply } from '#shared/contract/all-routes'
import type { DeskLine, orderRoutes } from '#shared/contract/order'
import { sayOfferReason } from '#shared/words/offer'
import { waysOf } from '#shared/words/ways'
import type { Context } from '../context'
import type { Tx } from '../db/client'
import { notFound, refused } from '../http/problem'
import { listHolidays, requireTerms, type Terms } from '../settings/reads'
import { takenOff } from './compute-tray'
import { findDeskLine, type DeskLineRow } from './desk-reads'
import { agreementOfLines } from './drawing'
import { asOffered, listOffered, type OfferedRow } from './offer-reads'
import { listPaid } from './paid-reads'

/** The longest time over which holidays are looked at, in days. */
const AHEAD = 600

interface Offered extends Offer {
  readonly row: OfferedRow
}

/** What of a line of the Desk decides on what offers are worth to it; null of one that is of no item. */
function toSource(l: DeskLineRow): LineToSource | null {
  if (l.itemId === null) return null
  return { ...l, itemId: l.itemId, quantity: l.open, adjustments: takenOff(l) }
}

/** What each of some lines could be ordered as, by its id; none where nobody else has what it asks for. */
async function offersOf(
  tx: Tx,
  lines: readonly DeskLineRow[],
  { today, perBase }: Pick<Terms, 'today' | 'perBase'>,
): Promise<Map<string, Offered[]>> {
  const offered = await listOffered(tx, [...new Set(lines.flatMap((l) => l.itemId ?? []))])
  if (offered.length === 0) return new Map()
  const holidays = new Set(await listHolidays(tx, today, addDays(today, AHEAD)))
  const rates = new Map(perBase)
  return new Map(
    lines.flatMap((l) => {
      const line = toSource(l)
      if (line === null) return []
      const own = offered.filter((o) => o.askedId === line.itemId)
      const judged = own.map((row) => ({
        row,
        ...judgeOffer(line, asOffered(row, l.currency, rates), today, holidays),
      }))
      return own.length === 0 ? [] : [[l.id, judged] as const]
    }),
  )
}

/** Who else has what lines of the Desk ask for, those that can be taken, the cheapest first. */
export async function othersOf(
  tx: Tx,
  lines: readonly DeskLineRow[],
  terms: Pick<Terms, 'today' | 'perBase'>,
): Promise<(lineId: string) => DeskLine['others']> {
  const offers = await offersOf(tx, lines, terms)
  return (lineId) => {
    const of = offers.get(lineId)
    const asked = of?.[0]?.row.askedId
    if (of === undefined || asked === undefined) return null
    const { fitting, saves } = othersThan(of, asked)
    return {
      fitting: fitting.map((o) => ({ itemId: o.itemId, supplierId: o.row.supplierId, supplier: o.row.supplier })),
      saves,
    }
  }
}

/** Everybody who has what a line of the Desk asks for: what it costs there, when it comes, and why it is not taken. */
export async function readOffers(
  ctx: Context,
  lineId: string,
  quantity: DecimalText | null = null,
): Promise<Reply<(typeof orderRoutes)['readOffers']>> {
  const { tx } = ctx
  const found = await findDeskLine(tx, partOf(ctx.actor.grants, 'order'), lineId)
  if (found === null) throw notFound('A line that waits')
  const wanted = dec(quantity ?? found.open)
  if (!wanted.isPositive() || wanted.gt(dec(found.open)))
    throw refused(
      [`Of “${found.description}” ${waysOf(ctx.actor.locale).quantity(found.open, found.unit)} can be ordered.`],
      {},
      'too-much',
    )
  const line = { ...found, open: wanted.toFixed() }
  const terms = await requireTerms(tx, ctx.now)
  const offers = inOrder((await offersOf(tx, [line], terms)).get(lineId) ?? [])
  const ids = offers.map((o) => o.itemId)
  const paid = await listPaid(tx, ids, 1)
  const agreementOf = await agreementOfLines(
    tx,
    offers.map((o) => drawing(line, o)),
    terms.today,
  )
  return {
    line: {
      ...{ id: line.id, description: line.description, open: found.open, unit: line.unit, needBy: line.needBy },
    },
    offers: offers.map(({ row, ...o }) => ({
      ...{ itemId: o.itemId, number: row.number, name: row.name, supplierId: row.supplierId, supplier: row.supplier },
      ...{ supplierPart: row.supplierPart, unit: row.unit, priceBase: row.priceBase, currency: row.currency },
      ...{ unitPrice: o.unitPrice, net: o.net, next: o.next, freight: o.freight, minimum: o.minimum },
      ...{ leadDays: row.leadDays, arrives: o.arrives, isLate: o.isLate },
      packs: o.packs === null ? null : { size: row.packSize ?? '1', packs: o.packs.packs, holds: o.packs.holds },
      agreement: agreementOf(drawing(line, { row }))?.number ?? null,
      paid: paid.get(o.itemId)?.[0] ?? null,
      isAsked: o.itemId === line.itemId,
      warnings: [row.facts.warning, row.supplierFacts.warning].filter((w) => w !== null),
      why: o.reasons.map((r) => sayOfferReason(r, row.supplier)),
    })),
  }
}

/** A line ordered as an offer, as far as it decides on which agreement it draws. */
const drawing = (line: DeskLineRow, { row }: { readonly row: OfferedRow }) => ({
  ...{ itemId: row.id, supplierId: row.supplierId, currency: line.currency, departmentId: line.departmentId },
})
