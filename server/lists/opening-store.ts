import { eq, sql } from 'drizzle-orm'
import { moneyOf } from '#core/base/money'
import { ledgerEntries } from '#core/budget/ledger'
import { LISTS } from '#core/lists/definitions'
import { keyOf, type Values } from '#core/lists/list'
import { lockBudgetLines, readStandings } from '../budget/reads'
import { appendEntries, type NewEntry } from '../budget/store'
import type { Context } from '../context'
import { named, read } from '../db/read'
import { budgetLine, openingBalance } from '../db/schema/budget'
import { department } from '../db/schema/people'
import { supplier } from '../db/schema/supplier'
import { requireOrganisation } from '../settings/reads'
import { inParts, textOf, together, yesNo, type EntryIds, type KeptEntry, type ListKeeper } from './keeper'

const w = named(openingBalance, 'w')
const b = named(budgetLine, 'b')
const d = named(department, 'd')
const s = named(supplier, 's')

const lineOf = (v: Values, ids: EntryIds): string => ids('budget-lines', keyOf(LISTS['budget-lines'], v)) ?? ''
const stageOf = (v: Values) => (v.stage === 'committed' ? 'committed' : 'spent')
const columnsOf = (v: Values, ids: EntryIds) => ({
  budgetLineId: lineOf(v, ids),
  period: Number(v.period ?? '0'),
  stage: stageOf(v) as 'spent' | 'committed',
  number: v.number ?? '',
  supplierId: ids('suppliers', v.supplier ?? ''),
  name: v.name ?? '',
  amount: v.amount ?? '0',
  isOver: v.over === 'yes',
})

/** What weighed on budget lines before Rekko; the ledger holds what each of them is worth today. */
export const opening: ListKeeper = {
  async read(tx) {
    const rows = await read(
      tx,
      {
        id: w.id,
        year: b.fiscalYear,
        department: d.costCentre,
        account: b.accountCode,
        project: b.projectCode,
        period: w.period,
        stage: w.stage,
        number: w.number,
        supplier: s.number,
        name: w.name,
        amount: sql<string>`trim_scale(${w.amount})::text`,
        over: w.isOver,
      },
      sql`from ${w} join ${b} on ${b.id} = ${w.budgetLineId} join ${d} on ${d.id} = ${b.departmentId}
        left join ${s} on ${s.id} = ${w.supplierId}
        order by ${b.fiscalYear} desc, ${d.costCentre}, ${b.accountCode}, ${w.period}, ${w.stage} desc, ${w.number}`,
    )
    return rows.map(({ id, over, ...r }) => ({
      id,
      values: {
        ...Object.fromEntries(Object.entries(r).map(([key, value]) => [key, textOf(value)])),
        over: yesNo(over),
      },
    }))
  },
  insert: (tx, entries, ids) =>
    inParts(entries, (some) =>
      tx.insert(openingBalance).values(some.map((e) => ({ id: e.id, ...columnsOf(e.values, ids) }))),
    ),
  update: (tx, entries, ids) =>
    together(
      entries.map((e) => tx.update(openingBalance).set(columnsOf(e.values, ids)).where(eq(openingBalance.id, e.id))),
    ),
  follow,
}

/** Brings the ledger to what the entries are worth; they are facts, so that nothing is refused for money. */
async function follow(ctx: Context, entries: readonly KeptEntry[], ids: EntryIds): Promise<void> {
  const { baseCurrency } = await requireOrganisation(ctx.tx)
  await lockBudgetLines(ctx.tx, [...new Set(entries.map((e) => lineOf(e.values, ids)))], baseCurrency)
  const moves: NewEntry[] = []
  for (const stage of ['spent', 'committed'] as const) {
    const some = entries.filter((e) => stageOf(e.values) === stage)
    const stands = await readStandings(
      ctx.tx,
      stage,
      some.map((e) => e.id),
      baseCurrency,
    )
    for (const { id, values } of some) {
      const amount = moneyOf(values.over === 'yes' ? '0' : (values.amount ?? '0'), baseCurrency)
      const worth = [{ budgetLineId: lineOf(values, ids), amount }]
      const about = { period: Number(values.period), documentKind: 'opening', documentId: id, lineId: id } as const
      for (const entry of ledgerEntries(stage, stands.get(id) ?? [], worth))
        moves.push({ ...entry, ...about, cause: values.over === 'yes' ? 'over' : 'from before' })
    }
  }
  await appendEntries(ctx, moves)
}
