import { inHandsOf } from '#core/approval/handed'
import { decidedFor } from '#core/approval/standing'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import type { DocumentHead } from '../document/kind'
import { tell } from '../document/tell'
import { forbidden, notFound, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import type { Decidable } from './decidable'
import { listHandings } from './handing-reads'
import { makeAgain } from './make-again'
import { moveRoute } from './move-route'
import { findRoute, listApprovals, listOpenActors } from './reads'
import { markCalledBack } from './store'

/** Calls back what one handed on, until whoever has it decided: it is asked again as before. */
export async function callBack<D extends DocumentHead>(
  ctx: Context,
  kind: Decidable<D>,
  id: string,
  handingId: string,
): Promise<{ id: string }> {
  const { tx, actor, now } = ctx
  const document = await kind.lock(ctx, id, null)
  const row = await findRoute(tx, id)
  const handings = await listHandings(tx, id)
  const handing = handings.find((h) => h.id === handingId)
  if (handing === undefined || row === null) throw notFound('What was handed on')
  if (handing.actorId !== actor.id && handing.byId !== actor.id)
    throw forbidden('Only whoever handed it on may call it back.')
  if (document.state !== 'in approval') throw refused(['It is decided on already.'], {}, 'acted-on')
  const { holder } = inHandsOf(handing.toId, handings.slice(handings.indexOf(handing) + 1))
  const had = [handing.toId, holder]
  if ((await listApprovals(tx, id)).some((a) => had.includes(decidedFor(a))))
    throw refused([`${handing.toName} has decided, or whoever has it from them.`], {}, 'acted-on')

  const before = await listOpenActors(tx, id)
  await markCalledBack(tx, handingId, now)
  const { route, policyId, progress } = await makeAgain(ctx, kind, document, row)
  await appendEvent(ctx, {
    type: 'called back',
    subjectKind: kind.name,
    subjectId: id,
    after: { toId: handing.toId, to: handing.toName, how: handing.how },
  })
  await moveRoute(ctx, document, row, progress, { route, policyId })
  const after = new Set((await listOpenActors(tx, id)).map((p) => p.id))
  const { number, title } = document
  for (const gone of before.filter((p) => !after.has(p.id)))
    await tell(ctx, gone.id, document, { code: 'called-back', by: actor.name, number, title }, { path: kind.path(id) })
  await notifyChange(tx, { kind: kind.name, id })
  return { id }
}
