import type { Context } from '../context'
import { findFile } from '../files/store'
import { notFound } from '../http/problem'
import type { Kind } from './kind'
import { listAttachments } from './reads'
import { maySee } from './visible'

/** An attachment's bytes; it is seen by whoever sees its document. */
export async function readAttachment(
  ctx: Context,
  of: Kind,
  id: string,
  attachmentId: string,
): Promise<{ bytes: Buffer; name: string; mime: string }> {
  if (!(await maySee(ctx, of, id))) throw notFound('This attachment')
  const found = (await listAttachments(ctx.tx, id)).find((a) => a.id === attachmentId)
  const kept = found === undefined ? null : await findFile(ctx.tx, found.fileHash)
  if (found === undefined || kept === null) throw notFound('This attachment')
  return { bytes: kept.bytes, name: found.name, mime: kept.mime }
}
