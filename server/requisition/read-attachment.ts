import { type Context } from '../context'
import { findFile } from '../files/store'
import { notFound } from '../http/problem'
import { listAttachments } from './reads'
import { maySee } from './visible'

/** An attachment's bytes; it is seen by whoever sees its requisition. */
export async function readAttachment(
  { tx, actor }: Context,
  id: string,
  attachmentId: string,
): Promise<{ bytes: Buffer; name: string; mime: string }> {
  if (!(await maySee(tx, actor, id))) throw notFound('This attachment')
  const found = (await listAttachments(tx, id)).find((a) => a.id === attachmentId)
  const kept = found === undefined ? null : await findFile(tx, found.fileHash)
  if (found === undefined || kept === null) throw notFound('This attachment')
  return { bytes: kept.bytes, name: found.name, mime: kept.mime }
}
