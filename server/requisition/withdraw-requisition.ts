import { stopRoute } from '../approval/stop-route'
import { appendEvent } from '../audit/store'
import { appendEntries } from '../budget/store'
import type { Context } from '../context'
import { setState } from '../document/store'
import { tell } from '../document/tell'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { releaseReservation } from './release'
import { requireMove } from './require'

/** Takes a requisition back from those who decide; its money is free again and it can be changed and sent anew. */
export async function withdrawRequisition(
  ctx: Context,
  id: string,
  version: number,
): Promise<{ id: string; version: number }> {
  const kept = await requireMove(ctx, id, version, 'withdraw')
  for (const actorId of await stopRoute(ctx, id)) {
    await tell(
      ctx,
      actorId,
      kept,
      { code: 'withdrawn', by: ctx.actor.name, number: kept.number, title: kept.title },
      { path: `/trail/${id}` },
    )
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
