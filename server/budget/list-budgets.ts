import { dayOf, daysBetween, firstDayOf, fiscalPeriod } from '#core/base/day'
import { add } from '#core/base/money'
import { figuresFor } from '#core/budget/available'
import { may } from '#core/people/rights'
import type { BudgetLineView } from '#shared/contract/budget'
import type { Context } from '../context'
import { requireOrganisation } from '../settings/reads'
import { listBehind, listVisibleLines } from './reads'

/** The budget lines that a person may look at, with their stages and what stands behind them. */
export async function listBudgets(
  { tx, actor, now }: Context,
  asked: number | undefined,
): Promise<{
  lines: BudgetLineView[]
  year: number
  period: number
  currency: string
  yearGone: number
  yearLeft: number
}> {
  const o = await requireOrganisation(tx)
  const today = dayOf(now, o.timeZone)
  const at = fiscalPeriod(today, o.fiscalStartMonth)
  const year = asked ?? at.year
  const lines = await listVisibleLines(tx, actor.id, may(actor.grants, 'see all budgets'), year, o.baseCurrency)
  const behind = await listBehind(
    tx,
    lines.map((l) => l.id),
  )
  const start = firstDayOf(year, 1, o.fiscalStartMonth)
  const end = firstDayOf(year + 1, 1, o.fiscalStartMonth)
  const gone = Math.min(1, Math.max(0, daysBetween(start, today) / daysBetween(start, end)))
  return {
    year,
    period: year === at.year ? at.period : 12,
    currency: o.baseCurrency,
    yearGone: gone,
    yearLeft: 1 - gone,
    lines: lines.map((l) => {
      const f = figuresFor(l, 12, 'year')
      const b = behind.find((x) => x.id === l.id)
      return {
        id: l.id,
        name: l.name,
        code: l.code,
        department: b?.department ?? '',
        holder: b?.holder ?? null,
        control: l.control,
        mayFallBelow: l.mayFallBelow,
        given: add(f.budgeted, f.adjustments),
        spent: f.spent,
        committed: f.committed,
        reserved: f.reserved,
        available: f.available,
        requests: b?.requests ?? 0,
        orders: b?.orders ?? 0,
        byPeriod: l.periods.map((p) => ({
          period: p.period,
          from: firstDayOf(year, p.period, o.fiscalStartMonth),
          budgeted: add(p.budgeted, p.adjustments),
          spent: p.spent,
          committed: p.committed,
          reserved: p.reserved,
        })),
      }
    }),
  }
}
