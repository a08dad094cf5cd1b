import { appendEvent } from '../audit/store'
import { type Context } from '../context'
import { invalid } from '../http/problem'
import { notifyChange } from '../live/notify'
import { requireMove } from './require'
import { insertRemark } from './store'
import { tell } from './tell'

/** Asks the owner something; state, money and route stay as they are. */
export async function askQuestion(ctx: Context, id: string, text: string): Promise<{ id: string }> {
  const kept = await requireMove(ctx, id, null, 'ask')
  const said = text.trim()
  if (said === '') throw invalid('Write the question first.', [{ field: 'text', message: 'is empty' }])
  await insertRemark(ctx.tx, { requisitionId: id, personId: ctx.actor.id, at: ctx.now, kind: 'question', text: said })
  await appendEvent(ctx, { type: 'asked', subjectKind: 'requisition', subjectId: id, after: { text: said } })
  await tell(ctx, kept.ownerId, kept, {
    subject: `A question about ${kept.draft.title}`,
    sentence: `${ctx.actor.name} asks about ${kept.number ?? 'your request'}: “${said}”`,
  })
  await notifyChange(ctx.tx, { kind: 'requisition', id })
  return { id }
}
