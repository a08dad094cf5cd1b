import { dayOf } from '#core/base/day'
import { appendEvent } from '../audit/store'
import { type Context } from '../context'
import { invalid, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { listOrderBuyers } from './page-reads'
import { listBuyersOf } from './remind'
import { requireMove } from './require'
import { insertRemark } from './store'
import { tell } from './tell'

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
    requisitionId: id,
    personId: ctx.actor.id,
    at: ctx.now,
    kind: 'wish',
    text: `${what === 'change' ? 'Please change it' : 'Please cancel it'}: ${said}`,
  })
  await appendEvent(ctx, {
    type: what === 'change' ? 'asked for a change' : 'asked for a cancellation',
    subjectKind: 'requisition',
    subjectId: id,
    after: { text: said },
  })
  const subject = `${what === 'change' ? 'A change' : 'A cancellation'} asked for: ${kept.draft.title}`
  for (const { id: personId } of asked)
    await tell(ctx, personId, kept, {
      subject,
      sentence: `${ctx.actor.name} asks for ${what === 'change' ? 'a change' : 'the cancellation'} of ${kept.number ?? ''}, ${kept.draft.title}: “${said}”`,
    })
  await notifyChange(ctx.tx, { kind: 'requisition', id })
  return { names: asked.map((a) => a.name) }
}
