import { openQuantity, stateFromQuantities } from '#core/requisition/line-progress'
import { dec } from '#core/base/decimal'
import { appendEvent } from '../audit/store'
import { appendEntries } from '../budget/store'
import type { Context } from '../context'
import { setState } from '../document/store'
import { refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { releaseReservation } from './release'
import { requireMove } from './require'
import { moveQuantities } from './store'

/** Cancels what was not ordered of a requisition and releases its money; what lies on a tray must come off first. */
export async function cancelRest(ctx: Context, id: string, version: number): Promise<{ id: string; version: number }> {
  const kept = await requireMove(ctx, id, version, 'cancelRest')
  if (kept.lines.some((l) => dec(l.onTray).isPositive()))
    throw refused(['A buyer has put a part of it on a tray; ask them to take it off first.'])
  const { baseCurrency } = await requireOrganisation(ctx.tx)
  const open = kept.lines.map((l) => ({
    line: l,
    open: openQuantity({ requested: l.quantity, ordered: l.ordered, cancelled: l.cancelled }),
  }))
  await appendEntries(ctx, await releaseReservation(ctx, kept, 'cancelled', baseCurrency))
  await moveQuantities(
    ctx.tx,
    open.map((o) => ({ lineId: o.line.id, cancelled: o.open })),
  )
  const state = stateFromQuantities(
    open.map((o) => ({
      requested: o.line.quantity,
      ordered: o.line.ordered,
      cancelled: dec(o.line.cancelled).plus(dec(o.open)).toFixed(),
    })),
  )
  await setState(ctx.tx, id, state, ctx.now)
  await appendEvent(ctx, {
    type: 'rest cancelled',
    subjectKind: 'requisition',
    subjectId: id,
    before: { state: kept.state },
    after: { state },
  })
  await notifyChange(ctx.tx, { kind: 'requisition', id })
  return { id, version: kept.version + 1 }
}
