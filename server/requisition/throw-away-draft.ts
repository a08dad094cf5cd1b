import type { Context } from '../context'
import { listAttachments } from '../document/reads'
import { deleteDraft } from '../document/store'
import { enqueue } from '../queue/enqueue'
import { requireMove } from './require'

/**
 * Throws away a draft that never had a number, with its files. The page keeps both for an undo, which saves it anew.
 */
export async function throwAwayDraft(ctx: Context, id: string, version: number): Promise<void> {
  await requireMove(ctx, id, version, 'throwAway')
  const hashes = (await listAttachments(ctx.tx, id)).map((a) => a.fileHash)
  await deleteDraft(ctx.tx, id)
  if (hashes.length > 0) await enqueue(ctx.tx, 'drop-files', { hashes })
}
