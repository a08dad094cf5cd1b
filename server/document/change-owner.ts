import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { notifyChange } from '../live/notify'
import type { DocumentHead } from './kind'
import { setOwner } from './store'

/** Gives a document of any kind, locked by the caller, to another owner; what follows is its kind's business. */
export async function changeOwner(
  ctx: Context,
  document: DocumentHead,
  to: { readonly id: string; readonly name: string },
): Promise<void> {
  const { id, kind, ownerId } = document
  await setOwner(ctx.tx, id, to.id, ctx.now)
  await appendEvent(ctx, {
    type: 'handed over',
    subjectKind: kind,
    subjectId: id,
    before: { ownerId },
    after: { ownerId: to.id, text: to.name },
  })
  await notifyChange(ctx.tx, { kind, id })
}
