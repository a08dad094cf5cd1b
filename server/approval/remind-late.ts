import { addBusinessDays, addDays, dayOf } from '#core/base/day'
import type { Context } from '../context'
import type { DocumentHead } from '../document/kind'
import { tell } from '../document/tell'
import { appendEvent } from '../audit/store'
import { listHolidays, requireOrganisation } from '../settings/reads'
import { decidePath, type Decidable } from './decidable'
import { listOpenSeats, requireVersion } from './reads'
import { routeAgain } from './route-again'
import { markWaiting } from './store'

/**
 * Reminds whoever a document has waited for longer than the policy has it, once, and asks the next manager beside whom
 * it has waited for still longer. Days are business days, and the one on which it came to them is not counted. The
 * document is locked.
 */
export async function remindLate<D extends DocumentHead>(ctx: Context, kind: Decidable<D>, document: D): Promise<void> {
  if (document.state !== 'in approval') return
  const { timeZone } = await requireOrganisation(ctx.tx)
  const today = dayOf(ctx.now, timeZone)
  const { remindDays, escalateDays } = (await requireVersion(ctx.tx, ctx.now, today)).form
  const isDue = async (openedOn: string, days: number | null) =>
    days !== null &&
    addBusinessDays(openedOn, days, new Set(await listHolidays(ctx.tx, openedOn, addDays(today, 1)))) <= today
  let late = false
  for (const seat of await listOpenSeats(ctx.tx, document.id)) {
    const since = dayOf(new Date(seat.openedAt), timeZone)
    if (seat.lateAt === null && (await isDue(since, escalateDays))) {
      await markWaiting(ctx.tx, seat.id, 'lateAt', ctx.now)
      late = true
    }
    if (seat.remindedAt !== null || !(await isDue(since, remindDays))) continue
    await markWaiting(ctx.tx, seat.id, 'remindedAt', ctx.now)
    await appendEvent(ctx, {
      type: 'reminded by itself',
      subjectKind: kind.name,
      subjectId: document.id,
      after: { personId: seat.actorId, since },
    })
    const told = { code: 'still-waits', number: document.number, title: document.title, since } as const
    await tell(ctx, seat.actorId, document, told, { path: decidePath(document.id) })
  }
  if (late) await routeAgain(ctx, kind, document)
}
