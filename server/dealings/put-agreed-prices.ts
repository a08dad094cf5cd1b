import { dayOf } from '#core/base/day'
import { findAgreement, listAgreementItems } from '../agreement/reads'
import { findItems } from '../catalogue/reads'
import { setPrices } from '../catalogue/set-prices'
import type { Context } from '../context'
import { notFound, refused } from '../http/problem'
import { requireOrganisation } from '../settings/reads'

/**
 * Puts what was agreed for some items of an agreement into the catalogue, from today on: one price for any quantity, in
 * the place of what was to hold.
 */
export async function putAgreedPrices(
  ctx: Context,
  id: string,
  itemIds: readonly string[],
): Promise<{ items: number }> {
  const { tx, now } = ctx
  const agreement = await findAgreement(tx, id)
  if (agreement === null) throw notFound('This agreement')
  const agreed = new Map((await listAgreementItems(tx, id)).map((k) => [k.itemId, k.unitPrice]))
  const wanted = [...new Set(itemIds)].sort()
  if (wanted.some((i) => agreed.get(i) == null))
    throw refused(['No price is agreed for one of these items: look at the agreement again.'])
  const other = (await findItems(tx, wanted)).find((i) => i.currency !== agreement.currency)
  if (other !== undefined)
    throw refused([`“${other.name}” is sold in ${other.currency}; the agreement is in ${agreement.currency}.`])
  const today = dayOf(now, (await requireOrganisation(tx)).timeZone)
  for (const itemId of wanted)
    await setPrices(ctx, itemId, today, [{ from: '0', unitPrice: agreed.get(itemId) ?? '0' }])
  return { items: wanted.length }
}
