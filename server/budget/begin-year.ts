import { dayOf } from '#core/base/day'
import { add, compare, moneyOf, sum, type Money } from '#core/base/money'
import { nextYear, type YearBase } from '#core/budget/next-year'
import type { PayingLine } from '#core/requisition/draft-facts'
import type { YearPlan } from '#shared/contract/budget'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { refused, stale } from '../http/problem'
import { listDepartments } from '../people/place-reads'
import { ORGANISATION } from '../settings/organisation-event'
import { requireOrganisation } from '../settings/reads'
import { listLinesToBegin, lockBudgetLines } from './reads'
import { copyLines } from './store'

export interface YearAsked {
  readonly factor: string
  readonly from: YearBase
}

interface Next {
  readonly line: PayingLine
  readonly was: Money
  readonly periods: readonly Money[]
}

async function work({ tx }: Context, year: number, { factor, from }: YearAsked): Promise<Next[]> {
  const { baseCurrency } = await requireOrganisation(tx)
  return (await listLinesToBegin(tx, year, baseCurrency)).map((line) => {
    const periods = line.periods.map((p) => (from === 'planned' ? p.budgeted : add(p.budgeted, p.adjustments)))
    return { line, was: sum(periods, baseCurrency), periods: nextYear(periods, factor, baseCurrency) }
  })
}

/** What a year would begin with: each line of the year before that it does not have yet, times a factor. */
export async function planYear(ctx: Context, year: number, asked: YearAsked): Promise<YearPlan> {
  const { baseCurrency } = await requireOrganisation(ctx.tx)
  const lines = await work(ctx, year, asked)
  const departments = new Map((await listDepartments(ctx.tx)).map((d) => [d.id, d.name]))
  return {
    lines: lines.map(({ line, was, periods }) => ({
      ...{ id: line.id, name: line.name, department: departments.get(line.departmentId) ?? '' },
      ...{ was, is: sum(periods, baseCurrency) },
    })),
    was: sum(
      lines.map((l) => l.was),
      baseCurrency,
    ),
    is: sum(
      lines.flatMap((l) => l.periods),
      baseCurrency,
    ),
  }
}

/**
 * Begins a year from the one before: its lines that are not there yet, as they are now, with their holders who are
 * still here. `seen` is what they were to come to when that was looked at; where it is something else by now, nothing
 * is written.
 */
export async function beginYear(
  ctx: Context,
  year: number,
  asked: YearAsked & { readonly seen: string },
): Promise<{ lines: number }> {
  const { baseCurrency, timeZone } = await requireOrganisation(ctx.tx)
  // Two at once begin it once: the second looks again when the first is done.
  const before = await work(ctx, year, asked)
  await lockBudgetLines(
    ctx.tx,
    before.map((l) => l.line.id),
    baseCurrency,
  )
  const lines = await work(ctx, year, asked)
  if (lines.length === 0) throw refused(['Every line of the year before is there already.'])
  const total = sum(
    lines.flatMap((l) => l.periods),
    baseCurrency,
  )
  if (compare(total, moneyOf(asked.seen, baseCurrency)) !== 0) throw stale('the year before was changed meanwhile')
  await copyLines(
    ctx.tx,
    lines.map((l) => ({ fromId: l.line.id, amounts: l.periods.map((m) => m.amount) })),
    year,
    dayOf(ctx.now, timeZone),
  )
  await appendEvent(ctx, {
    type: 'budget year begun',
    ...ORGANISATION,
    after: { year, factor: asked.factor, from: asked.from, lines: lines.length, amount: total },
  })
  return { lines: lines.length }
}
