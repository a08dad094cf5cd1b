import { dayOf, type Day } from '#core/base/day'
import type { StandIn } from '#core/people/person'
import { may } from '#core/people/rights'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { forbidden, invalid, notFound, stale } from '../http/problem'
import { notifyChange } from '../live/notify'
import { enqueue } from '../queue/enqueue'
import { requireOrganisation } from '../settings/reads'
import { findActor } from './actor-reads'
import { listAbsences, listStandIns } from './absence-reads'
import { listDepartments } from './place-reads'
import { deleteAbsence, insertAbsence, lockAbsence } from './store'

/** Says that a person is absent, both days included, and who decides meanwhile. Open routes follow. */
export async function setAway(
  ctx: Context,
  asked: {
    readonly personId: string
    readonly from: Day
    readonly until: Day
    readonly substituteId: string | null
    /** Who decides instead on what comes from a department, or from one below it. */
    readonly byDepartment?: readonly StandIn[]
    readonly note: string
  },
): Promise<{ id: string }> {
  const a = { ...asked, byDepartment: asked.byDepartment ?? [] }
  checkWhose(ctx, a.personId)
  const today = dayOf(ctx.now, (await requireOrganisation(ctx.tx)).timeZone)
  if (a.until < a.from)
    throw invalid('The last day lies before the first.', [{ field: 'until', message: 'lies before the first day' }])
  if (a.until < today) throw invalid('These days have passed.', [{ field: 'until', message: 'has passed' }])
  await checkSubstitutes(ctx, a)
  const clash = (await listAbsences(ctx.tx, today, a.personId)).find((b) => b.from <= a.until && a.from <= b.until)
  if (clash !== undefined)
    throw invalid('These days overlap with another absence; end that one first.', [
      { field: 'from', message: 'overlaps' },
    ])
  const id = await insertAbsence(ctx.tx, a)
  await appendEvent(ctx, { type: 'absence set', subjectKind: 'absence', subjectId: id, after: a })
  await enqueue(ctx.tx, 'route-all-again', {})
  await notifyChange(ctx.tx, { kind: 'absence', id: a.personId })
  return { id }
}

/** Whoever stands in is somebody else who is here, and for each department there is one. */
async function checkSubstitutes(
  { tx, now }: Context,
  a: { readonly personId: string; readonly substituteId: string | null; readonly byDepartment: readonly StandIn[] },
): Promise<void> {
  const named = [...(a.substituteId === null ? [] : [a.substituteId]), ...a.byDepartment.map((s) => s.substituteId)]
  if (named.includes(a.personId))
    throw invalid('A person cannot stand in for themselves.', [
      { field: 'substituteId', message: 'is the same person' },
    ])
  for (const id of new Set(named))
    if ((await findActor(tx, id, now)) === null)
      throw invalid('The substitute does not exist or has left.', [{ field: 'substituteId', message: 'is not known' }])
  const ids = a.byDepartment.map((s) => s.departmentId)
  if (new Set(ids).size < ids.length)
    throw invalid('Name one person for each department.', [{ field: 'byDepartment', message: 'names one twice' }])
  const known = new Set((await listDepartments(tx)).map((d) => d.id))
  if (!ids.every((id) => known.has(id)))
    throw invalid('A department is not known.', [{ field: 'byDepartment', message: 'is not known' }])
}

/** Takes an absence back; open routes follow. */
export async function endAway(ctx: Context, id: string, version: number): Promise<void> {
  const kept = await lockAbsence(ctx.tx, id)
  if (kept === null) throw notFound('This absence')
  const byDepartment = await listStandIns(ctx.tx, id)
  checkWhose(ctx, kept.personId)
  if (kept.version !== version) throw stale('the absence')
  await deleteAbsence(ctx.tx, id)
  await appendEvent(ctx, {
    type: 'absence ended',
    subjectKind: 'absence',
    subjectId: id,
    before: { ...kept, byDepartment },
  })
  await enqueue(ctx.tx, 'route-all-again', {})
  await notifyChange(ctx.tx, { kind: 'absence', id: kept.personId })
}

function checkWhose(ctx: Context, personId: string): void {
  if (personId !== ctx.actor.id && !may(ctx.actor.grants, 'set absences of others')) {
    throw forbidden('You may only say when you yourself are away; an administrator may do it for others.')
  }
}
