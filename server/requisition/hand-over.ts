import { may, partOf, type Part } from '#core/people/rights'
import { readDecisions } from '../approval/reads'
import { routeAgain } from '../approval/route-again'
import type { Context } from '../context'
import { changeOwner } from '../document/change-owner'
import { tell } from '../document/tell'
import { forbidden, refused } from '../http/problem'
import type { Actor } from '../people/actor'
import { requireHere } from '../people/find-people'
import { REQUISITION } from './kind'
import { findRequisition, listOwned, type RequisitionRow } from './reads'
import { requireMove } from './require'

/**
 * Gives a requisition to a new owner, with every right and every waiting action; steps not yet decided are routed
 * again.
 */
export async function handOver(
  ctx: Context,
  id: string,
  version: number,
  personId: string,
): Promise<{ id: string; version: number; others: number }> {
  const kept = await requireMove(ctx, id, version, 'handOver')
  const to = await requireNewOwner(ctx, id, personId)
  await give(ctx, kept, to)
  return { id, version: (await findRequisition(ctx.tx, id))?.version ?? kept.version, others: 0 }
}

/**
 * Gives this and everything else that its owner owns and that is not over to one person: when somebody leaves. Only a
 * buyer may.
 */
export async function handOverAll(
  ctx: Context,
  id: string,
  version: number,
  personId: string,
): Promise<{ id: string; version: number; others: number }> {
  if (!may(ctx.actor.grants, 'change owners'))
    throw forbidden('Only a buyer may hand over everything that somebody owns.')
  const kept = await requireMove(ctx, id, version, 'handOver')
  const to = await requireNewOwner(ctx, id, personId)
  await give(ctx, kept, to)
  const given = await giveRequisitions(ctx, kept.ownerId, to, partOf(ctx.actor.grants, 'change owners'))
  const others = given.sent + given.drafts
  if (others > 0)
    await tell(ctx, to.id, kept, { code: 'handed-over-more', by: ctx.actor.name, count: others }, { path: '/mine' })
  return { id, version: (await findRequisition(ctx.tx, id))?.version ?? kept.version, others }
}

/**
 * Gives all that somebody owns in a part and that is not over to one person, drafts too; says how many of each.
 * Nobody is told of each of them. What the new owner has decided on stays where it is.
 */
export async function giveRequisitions(
  ctx: Context,
  fromId: string,
  to: { id: string; name: string },
  part: Part,
): Promise<{ sent: number; drafts: number; kept: number }> {
  const done = { sent: 0, drafts: 0, kept: 0 }
  for (const { id } of await listOwned(ctx.tx, fromId, part)) {
    const found = await findRequisition(ctx.tx, id, true)
    if (found?.ownerId !== fromId) continue
    if (await decidedOn(ctx, id, to.id)) {
      done.kept += 1
      continue
    }
    await give(ctx, found, to, false)
    if (found.state === 'draft') done.drafts += 1
    else done.sent += 1
  }
  return done
}

/** Whether an approval of a person stands on it: they would own what they decided. */
async function decidedOn(ctx: Context, id: string, personId: string): Promise<boolean> {
  return (await readDecisions(ctx.tx, id)).standing.some((a) => a.actorId === personId || a.forId === personId)
}

/** Somebody who is here and may come to own it. */
async function requireNewOwner(ctx: Context, id: string, personId: string): Promise<Actor> {
  const to = await requireHere(ctx, personId)
  if (await decidedOn(ctx, id, to.id)) throw refused([`${to.name} has decided on it and cannot own it.`])
  return to
}

async function give(ctx: Context, kept: RequisitionRow, to: { id: string; name: string }, say = true): Promise<void> {
  if (kept.ownerId === to.id) throw refused([`${to.id === ctx.actor.id ? 'You own' : `${to.name} owns`} it already.`])
  await changeOwner(ctx, kept, to)
  const given = await findRequisition(ctx.tx, kept.id)
  if (given !== null) await routeAgain(ctx, REQUISITION, given)
  const { number, title } = kept
  const path = REQUISITION.path(kept.id)
  const by = ctx.actor.name
  if (say) await tell(ctx, to.id, kept, { code: 'handed-over-to-you', by, number, title }, { path })
  if (say) await tell(ctx, kept.ownerId, kept, { code: 'handed-over', by, number, title, to: to.name }, { path })
}
