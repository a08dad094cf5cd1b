import { fiscalPeriod } from '#core/base/day'
import { dec } from '#core/base/decimal'
import { lineNet } from '#core/base/line-net'
import { add, compare, moneyOf, sum, zero, type Money } from '#core/base/money'
import { checkBudget, type BudgetOutcome, type PeriodFigures } from '#core/budget/available'
import { orderLineEffects } from '#core/order/effects'
import type { PayingLine } from '#core/requisition/draft-facts'
import { listPayingLines, lockBudgetLines } from '../budget/reads'
import type { NewEntry } from '../budget/store'
import type { Context } from '../context'
import type { RequisitionLineRow, RequisitionRow } from '../requisition/reads'
import {
  entriesOfLine,
  frozenLine,
  periodOf,
  reservationEntries,
  worthOfOpen,
  type Reserved,
} from '../requisition/reservation'
import type { ComputedTray } from './compute-tray'
import type { OrderRow } from './reads'

/** What an order moves of the budgets that pay for it, and which of them would be passed by more than now. */
export interface PlannedMoney {
  readonly entries: readonly NewEntry[]
  readonly passed: readonly BudgetOutcome[]
  readonly budgetLines: ReadonlyMap<string, PayingLine>
}

/**
 * Works out what issuing an order moves: the reservations of what is ordered are released, and it is committed at order
 * prices. `lineIds` are those of its lines. Nothing is written; the budget lines are locked where it is to be.
 */
export async function planMoney(
  ctx: Context,
  tray: OrderRow,
  c: ComputedTray,
  lineIds: readonly string[],
  requisitions: ReadonlyMap<string, RequisitionRow>,
  isLocked = true,
): Promise<PlannedMoney> {
  const currency = c.organisation.baseCurrency
  const at = fiscalPeriod(c.today, c.organisation.fiscalStartMonth)
  const asked = new Map(
    [...requisitions.values()].flatMap((r) =>
      r.lines.map((l) => [l.id, { line: l, period: r.period ?? at.period }] as const),
    ),
  )
  const budgetIds = [...new Set([...asked.values()].flatMap(({ line }) => line.codings.map((x) => x.budgetLineId)))]
  const payers = isLocked
    ? await lockBudgetLines(ctx.tx, budgetIds, currency)
    : await listPayingLines(ctx.tx, { departmentId: null, fiscalYear: 0, ids: budgetIds }, currency)
  const budgetLines = new Map(payers.map((l) => [l.id, l]))

  const ordered = new Set(c.parts.map((p) => p.requisitionLineId))
  const stillReserved = [...requisitions.values()]
    .filter((r) => !r.isDirect)
    .map((r) => {
      const touched = r.lines.filter((l) => ordered.has(l.id))
      const period = r.period ?? at.period
      const left = (l: RequisitionLineRow) => worthOfOpen({ ...l, ordered: orderedWith(l, c) }, currency, period)
      return { requisition: r, lineIds: touched.map((l) => l.id), worth: new Map(touched.map((l) => [l.id, left(l)])) }
    })
  const entries: NewEntry[] = await reservationEntries(ctx, stillReserved, 'ordered', currency)
  c.lines.forEach((line, i) => {
    const worth = committedOf({ ...line, currency: tray.currency, perBase: requireRate(c) }, asked, currency)
    const about = { documentKind: 'order' as const, documentId: tray.id, lineId: lineIds[i] ?? '', cause: 'issued' }
    for (const e of entriesOfLine('committed', [], worth)) entries.push({ ...e, ...about })
  })
  return { entries, passed: passedBy(entries, budgetLines, currency), budgetLines }
}

/** The requisition lines that an order serves, each with the period of its request. */
export type AskedLines = ReadonlyMap<string, { readonly line: RequisitionLineRow; readonly period: number }>

/** What an order line commits, coding by coding, each where what was reserved for it stood. */
export function committedOf(
  line: Omit<Parameters<typeof orderLineEffects>[0], 'baseCurrency'> & {
    readonly sources: readonly { readonly requisitionLineId: string; readonly quantity: string }[]
  },
  asked: AskedLines,
  baseCurrency: string,
): Reserved[] {
  const sources = line.sources.map((s) => {
    const of = asked.get(s.requisitionLineId)
    if (of === undefined) throw new Error('an order line serves an unknown line')
    const { split, codings, ...frozen } = frozenLine(of.line, baseCurrency)
    return { quantity: s.quantity, split, codings, whole: lineNet(frozen), of }
  })
  const periods = sources.flatMap((s) => s.codings.map((_, at) => periodOf(s.of.line, at, s.of.period)))
  return orderLineEffects({ ...line, baseCurrency }, sources).map((e, i) => ({ ...e, period: periods[i] ?? 1 }))
}

/** How much of a line is ordered once what lies on the tray is. */
export function orderedWith(line: RequisitionLineRow, c: ComputedTray): string {
  return c.parts
    .filter((p) => p.requisitionLineId === line.id)
    .reduce((s, p) => s.plus(dec(p.quantity)), dec(line.ordered))
    .toFixed()
}

/** The rate of an order that may be issued: without one it may not. */
export function requireRate({ perBase }: ComputedTray): string {
  if (perBase === null) throw new Error('an order without a rate was let through')
  return perBase
}

/**
 * Budget lines that are passed: held only against an order that takes more from one than it gives back. Each is judged
 * as its span counts, a year as a whole and periods by themselves.
 */
export function passedBy(
  entries: readonly NewEntry[],
  lines: ReadonlyMap<string, PayingLine>,
  currency: string,
): BudgetOutcome[] {
  const money = (e: NewEntry): Money => moneyOf(e.amount.amount, currency)
  const total = (of: readonly NewEntry[]): Money => sum(of.map(money), currency)
  const passed: BudgetOutcome[] = []
  for (const [id, line] of lines) {
    const own = entries.filter((e) => e.budgetLineId === id)
    const released = {
      ...line,
      periods: line.periods.map((p): PeriodFigures => ({
        ...p,
        reserved: add(p.reserved, total(own.filter((e) => e.stage === 'reserved' && e.period === p.period))),
      })),
    }
    for (const period of new Set(own.map((e) => e.period))) {
      const counted = own.filter(
        (e) => line.span === 'year' || (line.span === 'to date' ? e.period <= period : e.period === period),
      )
      if (compare(total(counted), zero(currency)) <= 0) continue
      const committed = { budgetLineId: id, amount: total(counted.filter((e) => e.stage === 'committed')) }
      passed.push(...checkBudget([committed], new Map([[id, released]]), period).filter((o) => o.passedBy !== null))
    }
  }
  return passed
}
