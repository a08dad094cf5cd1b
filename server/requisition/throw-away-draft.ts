import { type Context } from '../context'
import { requireMove } from './require'
import { deleteRequisition } from './store'

/** Throws away a draft that never had a number. The page keeps it for an undo, which saves it anew. */
export async function throwAwayDraft(ctx: Context, id: string, version: number): Promise<void> {
  await requireMove(ctx, id, version, 'throwAway')
  await deleteRequisition(ctx.tx, id)
}
