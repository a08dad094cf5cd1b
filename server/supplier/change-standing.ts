import { dayOf, type Day } from '#core/base/day'
import { nextStandings, type Standing } from '#core/supplier/record'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { invalid, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { raiseList } from '../settings/store'
import { writeStanding } from './record-store'
import { requireRecord } from './require-record'

/** Puts a supplier on hold, blocks it, or lets it be ordered from again: with a reason, and a hold with an end. */
export async function changeStanding(
  ctx: Context,
  id: string,
  version: number,
  given: { readonly to: Standing; readonly reason: string; readonly until: Day | null },
): Promise<{ version: number }> {
  const { tx, now } = ctx
  const record = await requireRecord(ctx, id, version)
  if (!nextStandings(record.standing).includes(given.to))
    throw refused([`${record.name} is ${record.standing}; it cannot become ${given.to}.`], {}, 'wrong-state')
  const reason = given.reason.trim()
  if (given.to !== 'active' && reason === '')
    throw invalid('Say why: whoever meets it on a request reads it.', [{ field: 'reason', message: 'is empty' }])
  const today = dayOf(now, (await requireOrganisation(tx)).timeZone)
  if (given.until !== null && (given.to !== 'on hold' || given.until < today))
    throw invalid('Only a hold has a last day, today or later.', [{ field: 'until', message: 'is not possible' }])
  await writeStanding(tx, id, given.to, { reason, since: now, until: given.until })
  await raiseList(tx, 'suppliers')
  await appendEvent(ctx, {
    type: 'standing changed',
    subjectKind: 'supplier',
    subjectId: id,
    before: { standing: record.standing, reason: record.standingReason, until: record.standingUntil },
    after: { standing: given.to, reason, until: given.until },
  })
  await notifyChange(tx, { kind: 'settings', id })
  return { version: version + 1 }
}
