import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import type { Kind } from '../document/kind'
import { insertRemark } from '../document/store'
import { tell } from '../document/tell'
import { invalid } from '../http/problem'
import { notifyChange } from '../live/notify'
import { requireHere } from '../people/find-people'

/** Asks the owner something, or anybody else, who then sees it; state, money and route stay as they are. */
export async function askQuestion(
  ctx: Context,
  kind: Kind,
  id: string,
  text: string,
  toId: string | null,
): Promise<{ id: string }> {
  const document = await kind.lockFor(ctx, id, null, 'ask')
  const said = text.trim()
  if (said === '') throw invalid('Write the question first.', [{ field: 'text', message: 'is empty' }])
  const other = toId === null || toId === document.ownerId ? null : await requireHere(ctx, toId)
  if (other?.id === ctx.actor.id) throw invalid('Ask somebody else.', [{ field: 'toId', message: 'is yourself' }])
  await insertRemark(ctx.tx, {
    documentId: id,
    personId: ctx.actor.id,
    at: ctx.now,
    kind: 'question',
    text: said,
    toId: other?.id ?? null,
  })
  const to = other === null ? {} : { toId: other.id, to: other.name }
  await appendEvent(ctx, { type: 'asked', subjectKind: kind.name, subjectId: id, after: { text: said, ...to } })
  const { number, title } = document
  await tell(
    ctx,
    other?.id ?? document.ownerId,
    document,
    { code: 'asked', by: ctx.actor.name, number, title, text: said },
    { path: kind.path(id) },
  )
  await notifyChange(ctx.tx, { kind: kind.name, id })
  return { id }
}
