import { periodsOf } from '#core/base/day'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { notFound, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { ORGANISATION } from '../settings/organisation-event'
import { addPeriods, listPeriods, setClosed } from './organisation-store'

/** Closes a period for new documents and bills, or opens it again; nothing else moves. */
export async function setPeriod(ctx: Context, year: number, period: number, closed: boolean): Promise<void> {
  const found = (await listPeriods(ctx.tx, ctx.now)).find((p) => p.year === year && p.period === period)
  if (found === undefined) throw notFound('This period')
  if (found.closed === closed) return
  await setClosed(ctx.tx, year, period, closed ? ctx.now : null)
  const type = closed ? 'period closed' : 'period opened'
  await appendEvent(ctx, { type, ...ORGANISATION, before: { year, period, closed: found.closed }, after: { closed } })
  await notifyChange(ctx.tx, { kind: 'settings', id: ORGANISATION.subjectId })
}

/** Adds the fiscal year after the last one; one that is there already stays as it is. */
export async function addFiscalYear(ctx: Context, year: number): Promise<void> {
  const { fiscalStartMonth } = await requireOrganisation(ctx.tx)
  const years = new Set((await listPeriods(ctx.tx, ctx.now)).map((p) => p.year))
  if (years.has(year)) return
  if (!years.has(year - 1))
    throw refused([`The fiscal year before ${year} is not there yet; years follow one another.`])
  const added = await addPeriods(
    ctx.tx,
    periodsOf(year, fiscalStartMonth).map((p) => ({ year, ...p })),
  )
  if (added === 0) return
  await appendEvent(ctx, { type: 'fiscal year added', ...ORGANISATION, after: { year } })
  await notifyChange(ctx.tx, { kind: 'settings', id: ORGANISATION.subjectId })
}
