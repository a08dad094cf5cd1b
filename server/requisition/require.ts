import { actsAsOwner, checkMove, REQUISITION_MOVES, type RequisitionMoveName } from '#core/requisition/moves'
import { may } from '#core/people/rights'
import { sayMoveReason } from '#shared/words/requisition'
import { findOpenSeat } from '../approval/reads'
import { newestEvent } from '../audit/reads'
import type { Context } from '../context'
import { forbidden, notFound, refused, stale } from '../http/problem'
import { isAsked } from '../document/reads'
import { maySee } from '../document/visible'
import { findRequisition, type RequisitionRow } from './reads'
import { SEEN_REQUISITIONS } from './visible'

/** Whose a requisition is, besides its owner: all that is not frozen when it is sent. */
export const whoseRequisition = (r: RequisitionRow): { raisedById: string; departmentId: string } => ({
  raisedById: r.raisedById,
  departmentId: r.draft.departmentId ?? '',
})

/** Locks a requisition that the actor may see, at the version they saw; 404, 412 otherwise. */
export async function requireRequisition(ctx: Context, id: string, version: number | null): Promise<RequisitionRow> {
  const { tx, actor } = ctx
  const found = await findRequisition(tx, id, true)
  const isTheirs = found?.ownerId === actor.id || found?.raisedById === actor.id
  if (found === null || !(isTheirs || (await maySee(ctx, SEEN_REQUISITIONS, id)))) throw notFound('This requisition')
  if (version !== null && version !== found.version) {
    const last = await newestEvent(tx, id)
    throw stale(
      last === null ? 'it was saved elsewhere, perhaps in another tab' : `${last.name ?? 'Rekko'}: ${last.type}`,
    )
  }
  return found
}

/** Locks it and checks by the table of moves that the actor may make this one now; 403 or 409 with all reasons. */
export async function requireMove(
  ctx: Context,
  id: string,
  version: number | null,
  move: RequisitionMoveName,
): Promise<RequisitionRow> {
  const found = await requireRequisition(ctx, id, version)
  const reasons = checkMove(move, found, {
    isOwner: actsAsOwner(found, ctx.actor.id),
    isStepHolder:
      REQUISITION_MOVES[move].by === 'step holder' && (await findOpenSeat(ctx.tx, id, ctx.actor.id)) !== null,
    isAsked: REQUISITION_MOVES[move].by === 'owner or asked' && (await isAsked(ctx.tx, id, ctx.actor.id)),
    isBuyer: may(ctx.actor.grants, move === 'handOver' ? 'change owners' : 'order'),
  })
  const wrong = reasons.find((r) => r.code === 'wrong-state')
  if (wrong !== undefined) throw refused([sayMoveReason(wrong)], {}, 'wrong-state')
  const [first] = reasons
  if (first !== undefined) throw forbidden(sayMoveReason(first))
  return found
}
