import { dayOf } from '#core/base/day'
import { partProgress } from '#core/job/part'
import { dec } from '#core/base/decimal'
import type { JobPlan } from '#shared/contract/job'
import { appendEvent } from '../audit/store'
import { findItems } from '../catalogue/reads'
import type { Context } from '../context'
import { asSentence } from '../http/as-sentence'
import { forbidden, invalid, refused, stale } from '../http/problem'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { findPlan, listJobPeople, listParts, listPartLines, type JobRow, type PartRow, type PlanRow } from './job-reads'
import { beginPlan, findForeignParts, setPlan, writeParts, writePeople } from './job-store'
import { askForAdded } from './kind-of-parts'
import { mayPlan, requireJob } from './read-job'

/** The plan of a job that one may change, its row locked, at the version that was seen: 0 before the first. */
export async function requirePlan(ctx: Context, id: string, version: number): Promise<{ job: JobRow; plan: PlanRow }> {
  const job = await requireJob(ctx, id)
  if (!(await mayPlan(ctx, job)))
    throw forbidden('What a job needs is changed by its people, its department and administrators.')
  const before = await findPlan(ctx.tx, id)
  await beginPlan(ctx.tx, id)
  const plan = await findPlan(ctx.tx, id, true)
  // Begun by whoever else came first, or by this very change.
  const seen = before === null && plan?.version === 1 ? 0 : plan?.version
  if (plan === null || seen !== version) throw stale(`the job ${job.number}`)
  return { job, plan }
}

/** Keeps what is planned for a job as a whole: people, days, place, who pays, and its parts. */
export async function keepJob(ctx: Context, id: string, version: number, given: JobPlan): Promise<{ version: number }> {
  const { tx } = ctx
  if (given.startsOn !== null && given.endsOn !== null && given.endsOn < given.startsOn)
    throw invalid('It ends before it begins.', [{ field: 'endsOn', message: 'is before it begins' }])
  const { job, plan } = await requirePlan(ctx, id, version)
  if (
    (
      await findForeignParts(
        tx,
        id,
        given.parts.map((p) => p.id),
      )
    ).length > 0
  )
    throw invalid('A part of another job cannot be kept here.')
  const itemIds = [...new Set(given.parts.flatMap((p) => p.itemId ?? []))]
  if ((await findItems(tx, itemIds)).length < itemIds.length) throw invalid('An item is not in the catalogue.')
  const before = await listParts(tx, id)
  await refuseAsked(ctx, id, given)
  const people = await listJobPeople(tx, id)
  await asSentence(async () => {
    await setPlan(tx, id, {
      version: plan.version + 1,
      startsOn: given.startsOn,
      endsOn: given.endsOn,
      shipToId: given.shipToId,
      budgetLineId: given.budgetLineId,
    })
    await writePeople(tx, id, given.people)
  }, OF_JOBS)
  await writeParts(tx, id, numbered(given.parts, before))
  const known = new Set(before.map((p) => p.id))
  if (job.isOpen)
    await askForAdded(
      ctx,
      id,
      given.parts.flatMap((p) => (known.has(p.id) ? [] : [p.id])),
      dayOf(ctx.now, (await requireOrganisation(tx)).timeZone),
    )
  await appendEvent(ctx, {
    type: 'job kept',
    subjectKind: 'job',
    subjectId: id,
    before: { ...plan, people: people.map((p) => p.id), parts: before },
    after: { ...given },
  })
  await notifyChange(tx, { kind: 'settings', id })
  return { version: plan.version + 1 }
}

const OF_JOBS = { namesNothing: 'It names a person, a place or a budget line that does not exist.' }

/** A part keeps its number; a new one gets the first that is free behind those that are there. */
function numbered(parts: JobPlan['parts'], before: readonly PartRow[]): PartRow[] {
  const known = new Map(before.map((p) => [p.id, p.number]))
  let last = Math.max(0, ...before.map((p) => (/^\d{1,6}$/.test(p.number) ? Number(p.number) : 0)))
  return parts.map((p) => ({ ...p, number: known.get(p.id) ?? String((last += 1)) }))
}

/** What was asked for stays, and no less of it than was asked for. */
async function refuseAsked({ tx }: Context, id: string, given: JobPlan): Promise<void> {
  const lines = await listPartLines(tx, id)
  const kept = new Map(given.parts.map((p) => [p.id, p]))
  const wrong = (await listParts(tx, id)).flatMap((part) => {
    const { asked, drafted } = partProgress(
      part.quantity,
      lines.filter((l) => l.partId === part.id),
    )
    const taken = dec(asked).plus(dec(drafted))
    const now = kept.get(part.id)
    const least = now === undefined ? dec('0') : dec(now.quantity)
    const isLess = least.comparedTo(taken) < 0 && (now === undefined || now.quantity !== part.quantity)
    return taken.isPositive() && isLess ? [`Of “${part.description}” ${taken.toFixed()} are asked for already.`] : []
  })
  if (wrong.length > 0) throw refused(wrong)
}
