import { dayOf, daysBetween, firstDayOf, fiscalPeriod } from '#core/base/day'
import { add, subtract } from '#core/base/money'
import { figuresFor } from '#core/budget/available'
import { branchSums, type BranchSums } from '#core/budget/branch-sums'
import { forecast, spokenFor } from '#core/budget/forecast'
import { may } from '#core/people/rights'
import type { PayingLine } from '#core/requisition/draft-facts'
import type { BudgetLineView } from '#shared/contract/budget'
import type { Context } from '../context'
import { listUpward } from '../people/place-reads'
import { requireOrganisation } from '../settings/reads'
import { listBehind, listVisibleLines } from './reads'

/**
 * The budget lines that a person may look at, with their stages and what stands behind them: for the whole year, or up
 * to this period.
 */
export async function listBudgets(
  { tx, actor, now }: Context,
  asked: number | undefined,
  until: 'year' | 'now' = 'year',
): Promise<{
  lines: BudgetLineView[]
  departments: BranchSums[]
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
  const all = may(actor.grants, 'see all budgets')
  const lines = await listVisibleLines(tx, actor.id, all, year, o.baseCurrency)
  const lastYear = new Map(
    (await listVisibleLines(tx, actor.id, all, year - 1, o.baseCurrency)).map((l) => [sameLine(l), l]),
  )
  const behind = await listBehind(
    tx,
    lines.map((l) => l.id),
  )
  const start = firstDayOf(year, 1, o.fiscalStartMonth)
  const end = firstDayOf(year + 1, 1, o.fiscalStartMonth)
  const days = daysBetween(start, end)
  const daysGone = Math.min(days, Math.max(0, daysBetween(start, today)))
  const gone = daysGone / days
  const period = year === at.year ? at.period : 12
  const ahead = (l: PayingLine): BudgetLineView['forecast'] => {
    const last = lastYear.get(sameLine(l))?.periods ?? []
    const f = forecast({ daysGone, days, period }, l.periods.map(spokenFor), last.map(spokenFor), o.baseCurrency)
    if (f === null) return null
    const { budgeted, adjustments } = figuresFor(l, 12, 'year')
    const given = add(budgeted, adjustments)
    return {
      ...{ least: f.least, most: f.most, byLastYear: f.by.includes('last year') },
      ...{ leftLeast: subtract(given, f.most), leftMost: subtract(given, f.least) },
    }
  }
  const behindOf = new Map(behind.map((x) => [x.id, x]))
  const shown = lines.map((l): BudgetLineView => {
    const f = figuresFor(l, period, until === 'now' ? 'to date' : 'year')
    const b = behindOf.get(l.id)
    return {
      id: l.id,
      name: l.name,
      code: l.code,
      departmentId: l.departmentId,
      department: b?.department ?? '',
      holder: b?.holder ?? null,
      control: l.control,
      mayFallBelow: l.mayFallBelow,
      given: add(f.budgeted, f.adjustments),
      spent: f.spent,
      committed: f.committed,
      reserved: f.reserved,
      available: f.available,
      moved: f.adjustments,
      isHeld: l.holderId === actor.id,
      forecast: ahead(l),
      requests: b?.requests ?? 0,
      orders: b?.orders ?? 0,
      byPeriod: l.periods.map((p) => ({
        period: p.period,
        from: firstDayOf(year, p.period, o.fiscalStartMonth),
        budgeted: add(p.budgeted, p.adjustments),
        planned: p.budgeted,
        spent: p.spent,
        committed: p.committed,
        reserved: p.reserved,
      })),
    }
  })
  const departments = branchSums(await listUpward(tx), shown, o.baseCurrency)
  return {
    ...{ year, period, currency: o.baseCurrency, yearGone: gone, yearLeft: 1 - gone },
    departments,
    lines: departments.flatMap((d) => shown.filter((l) => l.departmentId === d.id)),
  }
}

/** What a line is from one year to the next. */
const sameLine = (l: PayingLine) => `${l.departmentId} ${l.account} ${l.project ?? ''}`
