import type { Context } from '../context'
import { deleteDraft } from '../document/store'
import { requireMove } from './require'

/** Throws away a draft that never had a number. The page keeps it for an undo, which saves it anew. */
export async function throwAwayDraft(ctx: Context, id: string, version: number): Promise<void> {
  await requireMove(ctx, id, version, 'throwAway')
  await deleteDraft(ctx.tx, id)
}
