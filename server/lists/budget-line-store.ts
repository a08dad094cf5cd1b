import { and, eq, sql } from 'drizzle-orm'
import type { BudgetControl, BudgetSpan } from '#core/budget/available'
import type { Day } from '#core/base/day'
import { moneyOf } from '#core/base/money'
import { spreadEvenly } from '#core/budget/profile'
import type { Values } from '#core/lists/list'
import type { Tx } from '../db/client'
import { named, read } from '../db/read'
import { budgetBalance, budgetLine } from '../db/schema/budget'
import { department, person } from '../db/schema/people'
import { requireOrganisation } from '../settings/reads'
import { inParts, orNull, textOf, yesNo, type EntryIds, type KeptEntry, type ListKeeper, together } from './keeper'

const b = named(budgetLine, 'b')
const d = named(department, 'd')
const h = named(person, 'h')
const PERIODS = 12

const columnsOf = (v: Values, ids: EntryIds) => ({
  fiscalYear: Number(v.year ?? '0'),
  departmentId: ids('departments', v.department ?? '') ?? '',
  accountCode: ids('accounts', v.account ?? '') ?? '',
  projectCode: orNull(v.project),
  name: v.name ?? '',
  holderId: ids('people', v.holder ?? ''),
  control: (v.control ?? 'tells') as BudgetControl,
  mayFallBelow: v.below ?? '0',
  span: (v.span ?? 'year') as BudgetSpan,
  tellAt: (v.tellAt ?? '')
    .split(',')
    .map((s) => s.trim())
    .filter((s) => s !== '')
    .map(Number)
    .sort((x, y) => x - y),
  retired: v.retired === 'yes',
})

/** Budget lines with what they are given for the year; an amount that changes is spread evenly over its periods. */
export const budgetLines: ListKeeper = {
  async read(tx) {
    const rows = await read(
      tx,
      {
        id: b.id,
        year: b.fiscalYear,
        department: d.costCentre,
        account: b.accountCode,
        project: b.projectCode,
        name: b.name,
        amount: sql<string>`(select trim_scale(coalesce(sum(${budgetBalance.budgeted}), 0)) from ${budgetBalance}
          where ${budgetBalance.budgetLineId} = ${b.id})::text`,
        holder: sql<string | null>`lower(${h.email})`,
        control: b.control,
        below: b.mayFallBelow,
        span: b.span,
        tellAt: sql<string>`array_to_string(${b.tellAt}, ', ')`,
        retired: b.retired,
      },
      sql`from ${b} join ${d} on ${d.id} = ${b.departmentId} left join ${h} on ${h.id} = ${b.holderId}
        order by ${b.fiscalYear} desc, ${d.costCentre}, ${b.accountCode}, ${b.projectCode}`,
    )
    return rows.map(({ id, retired, ...r }) => ({
      id,
      values: {
        ...Object.fromEntries(Object.entries(r).map(([key, value]) => [key, textOf(value)])),
        retired: yesNo(retired),
      },
    }))
  },
  async insert(tx, entries, ids) {
    await inParts(entries, (some) =>
      tx.insert(budgetLine).values(some.map((e) => ({ id: e.id, ...columnsOf(e.values, ids) }))),
    )
    const { baseCurrency } = await requireOrganisation(tx)
    const balances = entries.flatMap((e) => spread(e, baseCurrency))
    await inParts(balances, (some) => tx.insert(budgetBalance).values(some))
  },
  async update(tx, entries, ids, today) {
    await together(
      entries.map((e) => tx.update(budgetLine).set(columnsOf(e.values, ids)).where(eq(budgetLine.id, e.id))),
    )
    await spreadAnew(tx, entries, today)
  },
  async remove(tx, id) {
    await tx.delete(budgetBalance).where(eq(budgetBalance.budgetLineId, id))
    await tx.delete(budgetLine).where(eq(budgetLine.id, id))
  },
}

/** What each period of a line is given, in equal shares. */
function spread(e: KeptEntry, currency: string): { budgetLineId: string; period: number; budgeted: string }[] {
  const shares = spreadEvenly(moneyOf(e.values.amount ?? '0', currency), PERIODS)
  return shares.map((s, i) => ({ budgetLineId: e.id, period: i + 1, budgeted: s.amount }))
}

/** Only where the amount of the year is another: one that was divided by hand stays as it is. */
async function spreadAnew(tx: Tx, entries: readonly KeptEntry[], today: Day): Promise<void> {
  const before = new Map((await budgetLines.read(tx, today)).map((e) => [e.id, e.values.amount]))
  const { baseCurrency } = await requireOrganisation(tx)
  const other = entries.filter((x) => before.get(x.id) !== x.values.amount)
  await together(
    other
      .flatMap((e) => spread(e, baseCurrency))
      .map(({ budgetLineId, period, budgeted }) =>
        tx
          .update(budgetBalance)
          .set({ budgeted })
          .where(and(eq(budgetBalance.budgetLineId, budgetLineId), eq(budgetBalance.period, period))),
      ),
  )
}
