import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import type { Kind } from '../document/kind'
import { answerQuestions, insertRemark } from '../document/store'
import { tell } from '../document/tell'
import { invalid } from '../http/problem'
import { notifyChange } from '../live/notify'
import { decidePath } from './decidable'

/** Answers all that one was asked so far and tells those who asked. */
export async function answerQuestion(ctx: Context, kind: Kind, id: string, text: string): Promise<{ id: string }> {
  const document = await kind.lockFor(ctx, id, null, 'answer')
  const said = text.trim()
  if (said === '') throw invalid('Write the answer first.', [{ field: 'text', message: 'is empty' }])
  const askers = await answerQuestions(ctx.tx, document, ctx.actor.id, ctx.now)
  await insertRemark(ctx.tx, { documentId: id, personId: ctx.actor.id, at: ctx.now, kind: 'answer', text: said })
  await appendEvent(ctx, { type: 'answered', subjectKind: kind.name, subjectId: id, after: { text: said } })
  const { number, title } = document
  for (const asker of askers) {
    await tell(
      ctx,
      asker,
      document,
      { code: 'answered', by: ctx.actor.name, number, title, text: said },
      { path: document.state === 'in approval' ? decidePath(id) : kind.path(id) },
    )
  }
  await notifyChange(ctx.tx, { kind: kind.name, id })
  return { id }
}
