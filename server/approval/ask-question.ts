import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import type { Kind } from '../document/kind'
import { insertRemark } from '../document/store'
import { tell } from '../document/tell'
import { invalid } from '../http/problem'
import { notifyChange } from '../live/notify'

/** Asks the owner something; state, money and route stay as they are. */
export async function askQuestion(ctx: Context, kind: Kind, id: string, text: string): Promise<{ id: string }> {
  const document = await kind.lockFor(ctx, id, null, 'ask')
  const said = text.trim()
  if (said === '') throw invalid('Write the question first.', [{ field: 'text', message: 'is empty' }])
  await insertRemark(ctx.tx, { documentId: id, personId: ctx.actor.id, at: ctx.now, kind: 'question', text: said })
  await appendEvent(ctx, { type: 'asked', subjectKind: kind.name, subjectId: id, after: { text: said } })
  const { number, title } = document
  await tell(
    ctx,
    document.ownerId,
    document,
    { code: 'asked', by: ctx.actor.name, number, title, text: said },
    { path: kind.path(id) },
  )
  await notifyChange(ctx.tx, { kind: kind.name, id })
  return { id }
}
