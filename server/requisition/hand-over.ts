import { departmentsOf, may } from '#core/people/rights'
import { formatCount } from '#shared/words/format'
import { appendEvent } from '../audit/store'
import { type Context } from '../context'
import { forbidden, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { findActor } from '../people/reads'
import { findRequisition, listOwned, type RequisitionRow } from './reads'
import { requireMove } from './require'
import { routeAgain } from './route-again'
import { setOwner } from './store'
import { tell } from './tell'

/** Gives a requisition to a new owner, with every right and every waiting action; steps not yet decided are routed again. */
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

/** Gives this and everything else that its owner owns and that is not over to one person: when somebody leaves. Only a buyer may. */
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
    await tell(ctx, to.id, kept, {
      subject: 'Handed over to you',
      sentence: `${ctx.actor.name} handed ${formatCount(others.length, 'more request', 'more requests')} of the same owner over to you; you find them in Mine.`,
      path: '/mine',
    })
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
  await routeAgain(ctx, kept.id)
  const about = `${kept.number ?? 'a draft'}, ${kept.draft.title === '' ? 'without a title' : kept.draft.title}`
  if (say)
    await tell(ctx, to.id, kept, {
      subject: `Yours now: ${kept.draft.title}`,
      sentence: `${ctx.actor.name} handed ${about} over to you.`,
    })
  await tell(ctx, kept.ownerId, kept, {
    subject: `Handed over: ${kept.draft.title}`,
    sentence: `${ctx.actor.name} handed ${about} over to ${to.name}.`,
  })
  await notifyChange(ctx.tx, { kind: 'requisition', id: kept.id })
}
