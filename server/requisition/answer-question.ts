import { appendEvent } from '../audit/store'
import { type Context } from '../context'
import { invalid } from '../http/problem'
import { notifyChange } from '../live/notify'
import { requireMove } from './require'
import { answerQuestions, insertRemark } from './store'
import { tell } from './tell'

/** Answers all that was asked so far and tells those who asked. */
export async function answerQuestion(ctx: Context, id: string, text: string): Promise<{ id: string }> {
  const kept = await requireMove(ctx, id, null, 'answer')
  const said = text.trim()
  if (said === '') throw invalid('Write the answer first.', [{ field: 'text', message: 'is empty' }])
  const askers = await answerQuestions(ctx.tx, id, ctx.now)
  await insertRemark(ctx.tx, { requisitionId: id, personId: ctx.actor.id, at: ctx.now, kind: 'answer', text: said })
  await appendEvent(ctx, { type: 'answered', subjectKind: 'requisition', subjectId: id, after: { text: said } })
  for (const asker of askers) {
    await tell(ctx, asker, kept, {
      subject: `An answer about ${kept.draft.title}`,
      sentence: `${ctx.actor.name} answers about ${kept.number ?? ''}: “${said}”`,
      path: `/decide/${id}`,
    })
  }
  await notifyChange(ctx.tx, { kind: 'requisition', id })
  return { id }
}
