import { findRoute } from '../approval/reads'
import { dropSeats, updateRoute } from '../approval/store'
import { appendEvent } from '../audit/store'
import { appendEntries } from '../budget/store'
import { type Context } from '../context'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { releaseReservation } from './release'
import { requireMove } from './require'
import { setState } from './store'
import { tell } from './tell'

/** Takes a requisition back from those who decide; its money is free again and it can be changed and sent anew. */
export async function withdrawRequisition(
  ctx: Context,
  id: string,
  version: number,
): Promise<{ id: string; version: number }> {
  const kept = await requireMove(ctx, id, version, 'withdraw')
  const route = await findRoute(ctx.tx, id)
  if (route !== null) {
    const dropped = await dropSeats(ctx.tx, route.id)
    await updateRoute(ctx.tx, route.id, { state: 'stopped' })
    for (const actorId of new Set(dropped.map((d) => d.actorId))) {
      await tell(ctx, actorId, kept, {
        subject: `Withdrawn: ${kept.draft.title}`,
        sentence: `${ctx.actor.name} withdrew ${kept.number ?? ''}, ${kept.draft.title}; there is nothing left to decide.`,
      })
    }
  }
  const { baseCurrency } = await requireOrganisation(ctx.tx)
  await appendEntries(ctx, await releaseReservation(ctx, kept, 'withdrawn', baseCurrency))
  await setState(ctx.tx, id, 'withdrawn', ctx.now)
  await appendEvent(ctx, {
    type: 'withdrawn',
    subjectKind: 'requisition',
    subjectId: id,
    before: { state: kept.state },
    after: { state: 'withdrawn' },
  })
  await notifyChange(ctx.tx, { kind: 'requisition', id })
  return { id, version: kept.version + 1 }
}
