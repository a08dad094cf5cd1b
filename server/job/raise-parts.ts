import { randomUUID } from 'node:crypto'
import { addDays, dayOf, fiscalPeriod, type Day } from '#core/base/day'
import { dec } from '#core/base/decimal'
import { itemLine } from '#core/catalogue/item-line'
import { neededBy } from '#core/job/needed-by'
import { partProgress } from '#core/job/part'
import { BLANK_DRAFT, BLANK_LINE, MOST_LINES, type DraftLine } from '#core/requisition/draft'
import { appendEvent } from '../audit/store'
import { findItems, type ItemRow } from '../catalogue/reads'
import type { Context } from '../context'
import { refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { listOpenDepartments } from '../people/place-reads'
import { findBudgetLinesOfYear } from '../regulars/template-reads'
import { createDraft } from '../requisition/save-draft'
import { listHolidays, requireOrganisation, requireTerms } from '../settings/reads'
import { listParts, listPartLines, type PartRow } from './job-reads'
import { linkLines, setPlan } from './job-store'
import { kindOfParts } from './kind-of-parts'
import { requirePlan } from './keep-job'

/**
 * Writes a draft of the parts that nobody asked for yet, those that are named or all: under lock, so that two who raise
 * at once raise each part once; `byItself` as the kind that does. It is the actor's own, for the job's department where
 * that is open to them.
 */
export async function raiseParts(
  ctx: Context,
  id: string,
  version: number,
  partIds: readonly string[] | null,
  byItself = false,
): Promise<{ id: string; lines: number; version: number }> {
  const { tx, now, actor } = ctx
  const { job, plan } = await requirePlan(ctx, id, version)
  if (!job.isOpen) throw refused([`${job.number} is closed; nothing is raised for it any more.`])
  const lines = await listPartLines(tx, id)
  const wanted = (await listParts(tx, id))
    .filter((p) => partIds === null || partIds.includes(p.id))
    .map((p) => ({
      ...p,
      quantity: partProgress(
        p.quantity,
        lines.filter((l) => l.partId === p.id),
      ).open,
    }))
    .filter((p) => dec(p.quantity).isPositive())
    .slice(0, MOST_LINES)
  if (wanted.length === 0) throw refused(['Nothing of it is open: every part is asked for.'])
  const items = new Map(
    (
      await findItems(
        tx,
        wanted.flatMap((p) => p.itemId ?? []),
      )
    ).map((i) => [i.id, i]),
  )
  const gone = wanted.filter((p) => p.itemId !== null && items.get(p.itemId)?.facts.retired === true)
  if (gone.length > 0)
    throw refused(gone.map((p) => `“${p.description}” is no longer in the catalogue; put another in its place.`))
  const { timeZone, fiscalStartMonth, baseCurrency } = await requireOrganisation(tx)
  const today = dayOf(now, timeZone)
  const payer = await payerOf(ctx, plan.budgetLineId, fiscalPeriod(today, fiscalStartMonth).year)
  const kind = byItself ? await kindOfParts(tx, today) : null
  const [tax] = (await requireTerms(tx, now)).taxCodes.filter((t) => !t.retired)
  const written = wanted.map((part): { part: PartRow; line: DraftLine } => ({
    part,
    line: {
      ...lineOf(part, part.itemId === null ? undefined : items.get(part.itemId), today),
      ...(part.itemId === null ? { currency: baseCurrency, taxCode: tax?.code ?? BLANK_LINE.taxCode } : {}),
      jobId: id,
      codings: payer === null ? [] : [{ budgetLineId: payer, value: null }],
    },
  }))
  const open = await listOpenDepartments(tx, actor.id)
  const department = open.find((d) => d.id === job.departmentId) ?? open[0]
  const requisitionId = randomUUID()
  await createDraft(ctx, requisitionId, {
    ...BLANK_DRAFT,
    ...(kind === null ? {} : { kind: kind.code }),
    title: `${job.number} ${job.name}`.slice(0, 120),
    departmentId: department?.id ?? null,
    shipToId: plan.shipToId ?? department?.usualShipToId ?? null,
    // Whoever raises by hand says by when; what asks for itself has nobody to ask.
    needBy: byItself ? await dayNeeded(ctx, plan.startsOn, wanted, items, today) : null,
    jobId: id,
    why: `for the job ${job.number}, ${job.name}`,
    lines: written.map((w) => w.line),
  })
  await linkLines(
    tx,
    written.map(({ part, line }) => ({ partId: part.id, lineId: line.id })),
  )
  await setPlan(tx, id, { ...plan, version: plan.version + 1 })
  await appendEvent(ctx, {
    type: 'parts raised',
    subjectKind: 'job',
    subjectId: id,
    after: { requisitionId, parts: written.map(({ part }) => ({ id: part.id, quantity: part.quantity })) },
  })
  await notifyChange(tx, { kind: 'settings', id })
  return { id: requisitionId, lines: written.length, version: plan.version + 1 }
}

/** By when parts that ask for themselves are needed. */
async function dayNeeded(
  { tx }: Context,
  startsOn: Day | null,
  parts: readonly PartRow[],
  items: ReadonlyMap<string, ItemRow>,
  today: Day,
): Promise<Day> {
  const holidays = await listHolidays(tx, today, addDays(today, 800))
  const leadDays = parts.map((p) => (p.itemId === null ? null : (items.get(p.itemId)?.facts.leadDays ?? null)))
  return neededBy(startsOn, leadDays, today, new Set(holidays))
}

/** The budget line that pays this year; null where none does, and whoever raises says what pays. */
async function payerOf({ tx }: Context, budgetLineId: string | null, year: number): Promise<string | null> {
  if (budgetLineId === null) return null
  return (await findBudgetLinesOfYear(tx, [budgetLineId], year)).get(budgetLineId) ?? null
}

function lineOf(part: PartRow, item: ItemRow | undefined, today: Day): DraftLine {
  const id = randomUUID()
  if (item === undefined)
    return {
      ...BLANK_LINE,
      id,
      description: part.description,
      quantity: part.quantity,
      unit: part.unit,
      unitPrice: part.estimate,
    }
  return { ...BLANK_LINE, ...itemLine(item, part.quantity, today), id }
}
