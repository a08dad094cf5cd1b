import { dayOf, fiscalPeriod } from '#core/base/day'
import { estimateOf, orderedOf, partProgress } from '#core/job/part'
import { may } from '#core/people/rights'
import type { JobView } from '#shared/contract/job'
import { findItems } from '../catalogue/reads'
import type { Context } from '../context'
import { seenAmong } from '../document/visible'
import { notFound } from '../http/problem'
import { listOpenDepartments, listShipTos } from '../people/place-reads'
import { SEEN_REQUISITIONS } from '../requisition/visible'
import { requireOrganisation } from '../settings/reads'
import { kindOfParts } from './kind-of-parts'
import {
  findJob,
  findPlan,
  listJobPeople,
  listOrderedFor,
  listParts,
  listPartLines,
  listPayers,
  type JobRow,
} from './job-reads'

/** Who changes what is planned for a job: its people, its department, and whoever keeps settings. */
export async function mayPlan({ tx, actor }: Context, of: JobRow): Promise<boolean> {
  if (of.isIn || may(actor.grants, 'keep settings')) return true
  return (await listOpenDepartments(tx, actor.id)).some((d) => d.id === of.departmentId)
}

export async function requireJob(ctx: Context, id: string): Promise<JobRow> {
  const found = await findJob(ctx.tx, ctx.actor.id, id)
  if (found === null) throw notFound('This job')
  return found
}

/**
 * A job with its parts and how far each is. Whoever has nothing to do with it is told what it is called, not what it
 * needs; of requisitions one is led only to those that one sees.
 */
export async function readJob(ctx: Context, id: string): Promise<JobView> {
  const { tx, now, actor } = ctx
  const found = await requireJob(ctx, id)
  const { baseCurrency, timeZone, fiscalStartMonth } = await requireOrganisation(tx)
  const plan = await findPlan(tx, id)
  const mayChange = await mayPlan(ctx, found)
  const seesParts = mayChange || may(actor.grants, 'see all documents')
  const parts = seesParts ? await listParts(tx, id) : []
  const lines = seesParts ? await listPartLines(tx, id) : []
  const seen = await seenAmong(ctx, SEEN_REQUISITIONS, [...new Set(lines.map((l) => l.requisitionId))])
  const items = new Map((await findItems(tx, [...new Set(parts.flatMap((p) => p.itemId ?? []))])).map((i) => [i.id, i]))
  const today = dayOf(now, timeZone)
  const { year } = fiscalPeriod(today, fiscalStartMonth)
  return {
    ...found,
    version: plan?.version ?? 0,
    startsOn: plan?.startsOn ?? null,
    endsOn: plan?.endsOn ?? null,
    shipToId: plan?.shipToId ?? null,
    shipTo: plan?.shipTo ?? null,
    budgetLineId: plan?.budgetLineId ?? null,
    budgetLine: plan?.budgetLine ?? null,
    people: seesParts ? await listJobPeople(tx, id) : [],
    mayChange,
    raisesAs: mayChange && found.isOpen ? ((await kindOfParts(tx, today))?.name ?? null) : null,
    currency: baseCurrency,
    parts: parts.map((p) => {
      const own = lines.filter((l) => l.partId === p.id)
      const item = p.itemId === null ? undefined : items.get(p.itemId)
      return {
        ...p,
        itemNumber: item?.number ?? null,
        supplier: item?.supplier ?? null,
        retired: item?.facts.retired ?? false,
        progress: partProgress(p.quantity, own),
        requisitions: [...new Map(own.map((l) => [l.requisitionId, l])).values()].flatMap((l) =>
          seen.has(l.requisitionId) ? [{ id: l.requisitionId, number: l.number, state: l.state }] : [],
        ),
      }
    }),
    estimate: estimateOf(parts, baseCurrency),
    ordered: orderedOf(seesParts ? await listOrderedFor(tx, id) : [], baseCurrency),
    choices: mayChange
      ? {
          shipTos: (await listShipTos(tx)).map((s) => ({ id: s.id, name: s.name })),
          budgetLines: await listPayers(tx, { departmentId: found.departmentId, jobId: id }, year),
        }
      : { shipTos: [], budgetLines: [] },
  }
}
