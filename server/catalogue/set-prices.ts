import { addDays, dayOf, type Day } from '#core/base/day'
import { dec, type DecimalText } from '#core/base/decimal'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { invalid, notFound } from '../http/problem'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { raiseList } from '../settings/store'
import { lockItem, writePricesFrom } from './price-store'
import { listPriceSteps } from './reads'

/** Sets what an item costs from a day on; what held before holds up to the day before. */
export async function setPrices(
  ctx: Context,
  id: string,
  from: Day,
  steps: readonly { readonly from: DecimalText; readonly unitPrice: DecimalText }[],
): Promise<void> {
  const { tx, now } = ctx
  const today = dayOf(now, (await requireOrganisation(tx)).timeZone)
  if (from < today)
    throw invalid('A price holds from today or a later day on.', [{ field: 'from', message: 'is past' }])
  if (steps.some((s) => dec(s.from).isNegative() || dec(s.unitPrice).isNegative()))
    throw invalid('A price and its quantity are nothing or more.', [{ field: 'steps', message: 'are negative' }])
  if (new Set(steps.map((s) => dec(s.from).toFixed())).size < steps.length)
    throw invalid('Two prices begin at one quantity.', [{ field: 'steps', message: 'begin at one quantity' }])
  await raiseList(tx, 'items')
  if (!(await lockItem(tx, id))) throw notFound('This item')
  const before = (await listPriceSteps(tx, [id])).get(id) ?? []
  await writePricesFrom(tx, id, from, addDays(from, -1), steps)
  const after = { from, steps }
  await appendEvent(ctx, { type: 'prices set', subjectKind: 'item', subjectId: id, before: { steps: before }, after })
  await notifyChange(tx, { kind: 'settings', id })
}
