import { randomUUID } from 'node:crypto'
import { MOST_SUPPLIER_FILES } from '#core/order/channel'
import type { AttachedAs } from '#core/requisition/rules'
import type { AttachmentView } from '#shared/contract/document'
import { formatSize } from '#shared/words/format'
import type { Context } from '../context'
import { enqueue } from '../queue/enqueue'
import { checkUpload } from '../files/check-upload'
import { keepFile } from '../files/store'
import { forbidden, notFound, refused } from '../http/problem'
import type { Kind } from './kind'
import { listAttachments, viewAttachment, type AttachmentRow } from './reads'
import { deleteAttachment, insertAttachment, setAttachment } from './store'

const MOST_ATTACHMENTS = 30

interface Upload {
  readonly bytes: Buffer
  readonly name: string
  readonly kind: AttachedAs
  readonly forSupplier: boolean
}

/** Attaches a file to a document that can still be changed. Its content decides what it is, not its name. */
export async function attachFile(ctx: Context, of: Kind, id: string, upload: Upload): Promise<AttachmentView> {
  await of.lockFor(ctx, id, null, 'edit')
  if ((await listAttachments(ctx.tx, id)).length >= MOST_ATTACHMENTS)
    throw refused([`${of.called} holds at most ${MOST_ATTACHMENTS} attachments.`])
  const { mime, name } = await checkUpload(upload.bytes, upload.name)
  const fileHash = await keepFile(ctx.tx, upload.bytes, mime, ctx.now)
  const { kind, forSupplier } = upload
  const attachmentId = randomUUID()
  await insertAttachment(ctx.tx, {
    id: attachmentId,
    documentId: id,
    fileHash,
    name,
    kind,
    forSupplier,
    addedById: ctx.actor.id,
    addedAt: ctx.now,
  })
  if (forSupplier) await requireRoom(ctx, id)
  return { id: attachmentId, name, kind, fileHash, size: upload.bytes.length, mime, forSupplier }
}

/** Says anew of what kind an attachment is, and whether the supplier gets it with the order. */
export async function describeAttachment(
  ctx: Context,
  of: Kind,
  id: string,
  attachmentId: string,
  as: { readonly kind: AttachedAs; readonly forSupplier: boolean },
): Promise<AttachmentView> {
  const found = await requireAttachment(ctx, of, id, attachmentId)
  await setAttachment(ctx.tx, attachmentId, as)
  if (as.forSupplier) await requireRoom(ctx, id)
  return { ...viewAttachment(found), ...as }
}

/** Takes an attachment off a document that can still be changed. */
export async function detachFile(ctx: Context, of: Kind, id: string, attachmentId: string): Promise<void> {
  const found = await requireAttachment(ctx, of, id, attachmentId)
  if (found.addedById !== ctx.actor.id) throw forbidden('Only whoever attached it may take it off.')
  await deleteAttachment(ctx.tx, attachmentId)
  await enqueue(ctx.tx, 'drop-files', { hashes: [found.fileHash] })
}

/** What a document gives its supplier has to go with one order, each file once. */
async function requireRoom(ctx: Context, id: string): Promise<void> {
  const sizes = new Map(
    (await listAttachments(ctx.tx, id)).filter((a) => a.forSupplier).map((a) => [a.fileHash, a.size] as const),
  )
  const size = [...sizes.values()].reduce((s, bytes) => s + bytes, 0)
  if (size > MOST_SUPPLIER_FILES)
    throw refused([
      `With it the files for the supplier come to ${formatSize(size)}, and ${formatSize(MOST_SUPPLIER_FILES)} can go ` +
        `with an order: keep one for colleagues only, or make one smaller.`,
    ])
}

async function requireAttachment(ctx: Context, of: Kind, id: string, attachmentId: string): Promise<AttachmentRow> {
  await of.lockFor(ctx, id, null, 'edit')
  const found = (await listAttachments(ctx.tx, id)).find((a) => a.id === attachmentId)
  if (found === undefined) throw notFound('This attachment')
  return found
}
