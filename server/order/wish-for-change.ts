import { dayOf } from '#core/base/day'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { insertRemark } from '../document/store'
import { tell } from '../document/tell'
import { invalid, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { listBuyersOf } from '../requisition/remind'
import { requireMove } from '../requisition/require'
import { listOrderBuyers } from './served-reads'

/** Asks those who buy it to change or cancel what is approved or ordered; the state stays until they do. */
export async function wishForChange(
  ctx: Context,
  id: string,
  what: 'change' | 'cancel',
  text: string,
): Promise<{ names: string[] }> {
  const kept = await requireMove(ctx, id, null, 'wish')
  const said = text.trim()
  if (said === '')
    throw invalid(what === 'change' ? 'Say what should change.' : 'Say why it should be cancelled.', [
      { field: 'text', message: 'is empty' },
    ])
  const { timeZone } = await requireOrganisation(ctx.tx)
  const buyers = await listOrderBuyers(ctx.tx, id)
  const asked = buyers.length > 0 ? buyers : await listBuyersOf(ctx, kept, dayOf(ctx.now, timeZone))
  if (asked.length === 0) throw refused(['There is no buyer for this department; tell an administrator.'])
  await insertRemark(ctx.tx, {
    documentId: id,
    personId: ctx.actor.id,
    at: ctx.now,
    kind: what === 'change' ? 'change wished' : 'cancellation wished',
    text: said,
  })
  await appendEvent(ctx, {
    type: what === 'change' ? 'asked for a change' : 'asked for a cancellation',
    subjectKind: 'requisition',
    subjectId: id,
    after: { text: said },
  })
  for (const { id: personId } of asked)
    await tell(
      ctx,
      personId,
      kept,
      { code: 'wished', by: ctx.actor.name, number: kept.number, title: kept.title, what, text: said },
      { path: `/trail/${id}` },
    )
  await notifyChange(ctx.tx, { kind: 'requisition', id })
  return { names: asked.map((a) => a.name) }
}
