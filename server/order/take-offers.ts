import type { DecimalText } from '#core/base/decimal'
import { priceFor } from '#core/catalogue/price'
import { offerReasons } from '#core/order/offer'
import { sayOfferReason } from '#shared/words/offer'
import type { Context } from '../context'
import { notFound, refused } from '../http/problem'
import { requireTerms } from '../settings/reads'
import { asOffered, listOffered } from './offer-reads'

/** Another supplier's item as which a line is laid on a tray. */
export interface TakenOffer {
  readonly itemId: string
  readonly supplierId: string
  /** What one costs as the offer is taken: what it is ordered at, should no price of the item hold by then. */
  readonly unitPrice: DecimalText
}

interface LineTaken {
  readonly id: string
  readonly itemId: string | null
  readonly quantity: DecimalText
  readonly unit: string
  readonly currency: string
  /** The item that is taken instead; null where it is ordered as it was asked for. */
  readonly offerItemId: string | null
}

/** The offers that are taken of lines, by the line; refused where one is not the same thing, or is not to be had. */
export async function takeOffers(
  ctx: Context,
  lines: readonly LineTaken[],
): Promise<(lineId: string) => TakenOffer | null> {
  const taken = lines.filter((l) => l.offerItemId !== null && l.offerItemId !== l.itemId)
  if (taken.length === 0) return () => null
  const { today, perBase } = await requireTerms(ctx.tx, ctx.now)
  const offered = await listOffered(ctx.tx, [...new Set(taken.flatMap((l) => l.itemId ?? []))])
  const found = new Map<string, TakenOffer>()
  for (const line of taken) {
    const row = offered.find((o) => o.askedId === line.itemId && o.id === line.offerItemId)
    if (row === undefined) throw notFound('This offer')
    const item = asOffered(row, line.currency, new Map(perBase))
    const reasons = offerReasons(line, item, today)
    const price = priceFor(item.prices, line.quantity, today)
    if (reasons.length > 0 || price === null)
      throw refused(
        reasons.map((r) => sayOfferReason(r, row.supplier)),
        {},
        'no-offer',
      )
    found.set(line.id, { itemId: row.id, supplierId: row.supplierId, unitPrice: price.unitPrice })
  }
  return (lineId) => found.get(lineId) ?? null
}
