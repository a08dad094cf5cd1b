import { departmentsOf, may } from '#core/people/rights'
import { routeAgain } from '../approval/route-again'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { setOwner } from '../document/store'
import { tell } from '../document/tell'
import { forbidden, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { findActor } from '../people/actor-reads'
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
  await give(ctx, kept, await requireHere(ctx, personId))
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
  const to = await requireHere(ctx, personId)
  const departments = departmentsOf(ctx.actor.grants, 'change owners')
  const others = (await listOwned(ctx.tx, kept.ownerId, departments)).filter((o) => o.id !== id)
  await give(ctx, kept, to)
  for (const other of others) {
    const found = await findRequisition(ctx.tx, other.id, true)
    if (found !== null) await give(ctx, found, to, false)
  }
  if (others.length > 0)
    await tell(
      ctx,
      to.id,
      kept,
      { code: 'handed-over-more', by: ctx.actor.name, count: others.length },
      { path: '/mine' },
    )
  return { id, version: (await findRequisition(ctx.tx, id))?.version ?? kept.version, others: others.length }
}

async function requireHere(ctx: Context, personId: string): Promise<{ id: string; name: string }> {
  const to = await findActor(ctx.tx, personId, ctx.now)
  if (to === null) throw refused(['Whoever you chose is not here any more; choose somebody who is.'])
  return to
}

async function give(ctx: Context, kept: RequisitionRow, to: { id: string; name: string }, say = true): Promise<void> {
  if (kept.ownerId === to.id) throw refused([`${to.id === ctx.actor.id ? 'You own' : `${to.name} owns`} it already.`])
  await setOwner(ctx.tx, kept.id, to.id, ctx.now)
  await appendEvent(ctx, {
    type: 'handed over',
    subjectKind: 'requisition',
    subjectId: kept.id,
    before: { ownerId: kept.ownerId },
    after: { ownerId: to.id, text: to.name },
  })
  const given = await findRequisition(ctx.tx, kept.id)
  if (given !== null) await routeAgain(ctx, REQUISITION, given)
  const { number, title } = kept
  const path = REQUISITION.path(kept.id)
  const by = ctx.actor.name
  if (say) await tell(ctx, to.id, kept, { code: 'handed-over-to-you', by, number, title }, { path })
  await tell(ctx, kept.ownerId, kept, { code: 'handed-over', by, number, title, to: to.name }, { path })
  await notifyChange(ctx.tx, { kind: 'requisition', id: kept.id })
}
