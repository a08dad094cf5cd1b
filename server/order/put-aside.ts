import { dayOf, type Day } from '#core/base/day'
import { asideReasons } from '#core/order/aside'
import { sayAsideReason } from '#shared/words/order'
import { waysOf } from '#shared/words/ways'
import { appendEvents } from '../audit/store'
import type { Context } from '../context'
import { dropQuestions } from '../document/store'
import { refused } from '../http/problem'
import { notifyChanges } from '../live/notify'
import { setAside } from '../requisition/store'
import { requireOrganisation } from '../settings/reads'
import { lockOpenLines } from './open-lines'

export interface PutAside {
  readonly lineIds: readonly string[]
  /** On that day they wait again; null: they wait again at once. */
  readonly until: Day | null
  /** Why, as whoever asked reads it. */
  readonly reason: string
}

/**
 * Puts open lines of the Desk aside until a day, or has them wait again, also for no answer any more; laid on a tray
 * they are aside no more.
 */
export async function putAside(ctx: Context, { lineIds, until, reason }: PutAside): Promise<void> {
  const today = dayOf(ctx.now, (await requireOrganisation(ctx.tx)).timeZone)
  const ways = waysOf(ctx.actor.locale)
  const wrong = until === null ? [] : asideReasons(until, today).map((r) => sayAsideReason(r, ways, today))
  if (wrong.length > 0) throw refused(wrong, {}, 'does-not-fit')
  const found = await lockOpenLines(ctx, lineIds)
  const named = new Map<string, string[]>()
  for (const { requisition, line } of found)
    named.set(requisition.id, [...(named.get(requisition.id) ?? []), line.description])
  await setAside(ctx.tx, lineIds, until, until === null ? '' : reason.trim())
  if (until === null) await dropQuestions(ctx.tx, lineIds, ctx.now)
  await appendEvents(
    ctx,
    [...named].map(([id, names]) => ({
      type: until === null ? 'taken up again' : 'put aside',
      subjectKind: 'requisition',
      subjectId: id,
      after: { names, ...(until === null ? {} : { until, text: reason.trim() }) },
    })),
  )
  await notifyChanges(
    ctx.tx,
    [...named.keys()].map((id) => ({ kind: 'requisition', id })),
  )
}
