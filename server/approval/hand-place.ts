import type { Handing } from '#core/approval/handed'
import { decidedFor } from '#core/approval/standing'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import type { DocumentHead } from '../document/kind'
import { insertRemark } from '../document/store'
import { tell } from '../document/tell'
import { refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import type { Actor } from '../people/actor'
import { decidePath, ownersOf, type Decidable } from './decidable'
import { makeAgain } from './make-again'
import { moveRoute } from './move-route'
import type { RouteRow } from './reads'
import { insertHanding } from './store'

const EVENTS = {
  on: 'passed on',
  first: 'asked to decide first',
  'as well': 'asked to decide as well',
  skip: 'skipped',
} as const satisfies Record<Handing['how'], string>

/**
 * Gives the place of somebody who is asked to somebody else, or has them decide before or as well. Nobody gets it who
 * is asked anyway or whose own it is; what is said with it is for everybody who decides. The document is locked.
 */
export async function handPlace<D extends DocumentHead>(
  ctx: Context,
  kind: Decidable<D>,
  document: D,
  row: RouteRow,
  wish: {
    readonly how: Handing['how']
    readonly byId: string
    readonly forId: string | null
    readonly to: Pick<Actor, 'id' | 'name'>
    readonly comment: string
  },
): Promise<string> {
  const { tx, actor, now } = ctx
  const { how, byId, forId, to } = wish
  if (ownersOf(kind, document).includes(to.id))
    throw refused([`${to.name} raised or owned it, and nobody decides on their own.`])
  // Whoever is skipped leaves it to whoever decides in the end, also where they come later anyway.
  const seats = how === 'skip' ? [] : row.route.steps.flatMap((s) => s.seats)
  if (to.id === byId || seats.some((s) => s.actorId === to.id || s.forId === to.id))
    throw refused([to.id === actor.id ? 'You are asked already.' : `${to.name} is asked about it anyway.`])
  const handingId = crypto.randomUUID()
  await insertHanding(tx, {
    ...{ id: handingId, routeId: row.id, documentId: document.id, at: now },
    ...{ how, byId, actorId: actor.id, toId: to.id },
  })
  const { route, policyId, progress } = await makeAgain(ctx, kind, document, row)
  if (!route.steps.some((s) => s.seats.some((x) => decidedFor(x) === to.id)))
    throw refused([`${to.name} is away, and nobody who may decide on it stands in for them.`])
  const comment = wish.comment.trim()
  if (comment !== '')
    await insertRemark(tx, { documentId: document.id, personId: actor.id, at: now, kind: 'reason', text: comment })
  await appendEvent(ctx, {
    type: EVENTS[how],
    subjectKind: kind.name,
    subjectId: document.id,
    forId,
    after: { byId, toId: to.id, to: to.name, comment },
  })
  const { number, title } = document
  for (const { actorId } of await moveRoute(ctx, document, row, progress, { route, policyId }))
    await tell(
      ctx,
      actorId,
      document,
      { code: 'handed-to-decide', by: actor.name, how, number, title, comment },
      { path: decidePath(document.id) },
    )
  await notifyChange(tx, { kind: kind.name, id: document.id })
  return handingId
}
