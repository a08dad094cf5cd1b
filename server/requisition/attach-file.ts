import { randomUUID } from 'node:crypto'
import { type Context } from '../context'
import { checkUpload } from '../files/check-upload'
import { keepFile } from '../files/store'
import { forbidden, notFound, refused } from '../http/problem'
import { listAttachments } from './reads'
import { requireMove } from './require'
import { deleteAttachment, insertAttachment } from './store'

const MOST_ATTACHMENTS = 30

/** Attaches a file to a requisition that can still be changed. Its content decides what it is, not its name. */
export async function attachFile(ctx: Context, id: string, upload: { readonly bytes: Buffer; readonly name: string; readonly kind: string }): Promise<{ id: string; name: string; kind: string; size: number }> {
  await requireMove(ctx, id, null, 'edit')
  if ((await listAttachments(ctx.tx, id)).length >= MOST_ATTACHMENTS) throw refused([`A requisition holds at most ${MOST_ATTACHMENTS} attachments.`])
  const { mime, name } = await checkUpload(upload.bytes, upload.name)
  const fileHash = await keepFile(ctx.tx, upload.bytes, mime, ctx.now)
  const attachmentId = randomUUID()
  await insertAttachment(ctx.tx, { id: attachmentId, requisitionId: id, fileHash, name, kind: upload.kind, addedById: ctx.actor.id, addedAt: ctx.now })
  return { id: attachmentId, name, kind: upload.kind, size: upload.bytes.length }
}

/** Takes an attachment off a requisition that can still be changed. */
export async function detachFile(ctx: Context, id: string, attachmentId: string): Promise<void> {
  await requireMove(ctx, id, null, 'edit')
  const found = (await listAttachments(ctx.tx, id)).find((a) => a.id === attachmentId)
  if (found === undefined) throw notFound('This attachment')
  if (found.addedById !== ctx.actor.id) throw forbidden('Only whoever attached it may take it off.')
  await deleteAttachment(ctx.tx, attachmentId)
}
