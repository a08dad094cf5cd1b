import { dayOf } from '#core/base/day'
import { add, compare, isZero, moneyOf, negate, sum, type Money } from '#core/base/money'
import { CARRIED_TO, yearEndEntries, type OpenStanding, type YearEndChoice } from '#core/budget/year-end'
import type { YearEndAsked } from '#shared/contract/year-end'
import { formatYear } from '#shared/words/format'
import { appendEvent, appendEvents } from '../audit/store'
import { lockBudgetLines } from '../budget/reads'
import { appendEntries } from '../budget/store'
import { enterAdjustment } from '../budget/transfer-money'
import type { Context } from '../context'
import type { Tx } from '../db/client'
import { refused, stale } from '../http/problem'
import { notifyChanges } from '../live/notify'
import { ORGANISATION } from '../settings/organisation-event'
import { requireOrganisation } from '../settings/reads'
import { linesToEnd, type LineToEnd } from './lines-to-end'
import { listCarriedTwice, listServed, lockDocuments } from './reads'
import { endsOn } from './read-year-end'
import { endCodings, endOpening, insertRun, type Ending } from './store'

const CHANGED = 'something of what is open was changed meanwhile'

/** A budget line with what was chosen for it. */
interface Chosen extends LineToEnd {
  readonly choice: YearEndChoice
}

/**
 * Ends a year for the budget lines named: what is open of them is carried to the next year or released, in one go, as
 * it was seen. What is carried is never refused for money: it was promised before. Documents keep their states.
 */
export async function endYear(ctx: Context, year: number, asked: YearEndAsked): Promise<{ id: string }> {
  const { tx, now } = ctx
  const { baseCurrency: currency, timeZone, fiscalStartMonth } = await requireOrganisation(tx)
  const from = endsOn(year, fiscalStartMonth)
  if (dayOf(now, timeZone) < from) throw refused([`${formatYear(year)} is not over yet: it may be ended from ${from}.`])
  const named = new Set(asked.lines.map((l) => l.id))
  const before = (await linesToEnd(tx, year, currency)).filter((l) => named.has(l.id))
  const documents = await lockWhatIsOpen(
    tx,
    before.flatMap((l) => l.open),
  )
  const { lines, next } = await linesAsSeen(tx, year, asked, before, currency)
  const open = lines.flatMap((l) => l.open)
  if (open.some((s) => !documents.has(s.documentId))) throw stale(CHANGED)

  const endings = lines.map((l): Ending => ({ lineId: l.id, choice: l.choice, nextId: l.next?.id ?? null }))
  const twice = await listCarriedTwice(tx, openingOf(lines.filter((l) => l.choice === 'carry')), CARRIED_TO)
  if (twice.length > 0)
    throw refused(twice.map((n) => `${n} stands in the list of the next year already. Take it away there, or here.`))
  await appendEntries(ctx, yearEndEntries(open, new Map(lines.map((l) => [l.id, l.choice])), next))
  await endCodings(tx, [...documents], endings, CARRIED_TO)
  await endOpening(tx, openingOf(lines), endings, CARRIED_TO)
  if (asked.withMoney) await bringMoney(ctx, lines, `open at the end of ${formatYear(year)}`)
  return { id: await report(ctx, year, asked, lines) }
}

const openingOf = (lines: readonly LineToEnd[]): string[] => [
  ...new Set(lines.flatMap((l) => l.open.filter((s) => s.documentKind === 'opening').map((s) => s.documentId))),
]

/** Locks the documents behind what is open, and those that orders serve; says which they are. */
async function lockWhatIsOpen(tx: Tx, open: readonly OpenStanding[]): Promise<Set<string>> {
  const served = await listServed(
    tx,
    open.filter((s) => s.documentKind === 'order').map((s) => s.lineId),
  )
  const ids = new Set([...open.map((s) => s.documentId), ...served])
  await lockDocuments(tx, [...ids])
  return ids
}

/** The lines named, under lock with those that they are carried to, and only as they were seen. */
async function linesAsSeen(
  tx: Tx,
  year: number,
  asked: YearEndAsked,
  before: readonly LineToEnd[],
  currency: string,
): Promise<{ lines: Chosen[]; next: Map<string, string> }> {
  const nexts = before.flatMap((l) => (l.next === null ? [] : [l.next.id]))
  await lockBudgetLines(tx, [...asked.lines.map((l) => l.id), ...nexts], currency)
  const found = new Map((await linesToEnd(tx, year, currency)).map((l) => [l.id, l]))
  const lines = asked.lines.map(({ id, choice, seen }): Chosen => {
    const line = found.get(id)
    if (line === undefined || compare(add(line.reserved, line.committed), moneyOf(seen, currency)) !== 0)
      throw stale(CHANGED)
    return { ...line, choice }
  })
  const lost = lines.filter((l) => l.choice === 'carry' && l.next === null)
  if (lost.length > 0)
    throw refused(lost.map((l) => `${l.name} of ${l.department} has no line in ${formatYear(year + 1)} to pay from.`))
  return { lines, next: new Map(lines.flatMap((l) => (l.next === null ? [] : [[l.id, l.next.id] as const]))) }
}

/** Gives the next year's lines what was carried to them, and takes it from where it stood, as adjustments. */
async function bringMoney(ctx: Context, lines: readonly Chosen[], reason: string): Promise<void> {
  for (const { next, open } of lines.filter((l) => l.choice === 'carry')) {
    for (const [period, amount] of byPeriod(open)) {
      const line = open[0]?.budgetLineId ?? ''
      await enterAdjustment(ctx, line, period, negate(amount), reason)
      await enterAdjustment(ctx, next?.id ?? '', CARRIED_TO, amount, reason)
    }
  }
}

/** What stands in each period, without those in which it comes to nothing. */
function byPeriod(open: readonly OpenStanding[]): [number, Money][] {
  const periods = [...new Set(open.map((s) => s.period))].sort((a, b) => a - b)
  return periods
    .map((p): [number, Money] => {
      const of = open.filter((s) => s.period === p).map((s) => s.amount)
      return [p, sum(of, of[0]?.currency ?? '')]
    })
    .filter(([, amount]) => !isZero(amount))
}

/** Keeps what the run did, and says so of every document that it touched. */
async function report(ctx: Context, year: number, asked: YearEndAsked, lines: readonly Chosen[]): Promise<string> {
  const id = crypto.randomUUID()
  await insertRun(ctx.tx, {
    ...{ id, fiscalYear: year, at: ctx.now, byId: ctx.actor.id, withMoney: asked.withMoney },
    lines: lines.map((l) => ({
      ...{ id: l.id, name: l.name, department: l.department, choice: l.choice, documents: l.documents },
      ...{ reserved: l.reserved.amount, committed: l.committed.amount },
    })),
  })
  const touched = new Map(
    lines.flatMap((l) =>
      l.open.flatMap((s) => (s.documentKind === 'opening' ? [] : [[`${s.documentId} ${l.choice}`, { s, l }] as const])),
    ),
  )
  await appendEvents(
    ctx,
    [...touched.values()].map(({ s, l }) => ({
      type: l.choice === 'carry' ? 'carried' : 'released',
      ...{ subjectKind: s.documentKind, subjectId: s.documentId, after: { year: year + 1, line: l.name } },
    })),
  )
  await appendEvent(ctx, {
    type: 'budget year ended',
    ...ORGANISATION,
    after: { year, run: id, withMoney: asked.withMoney, lines: lines.length },
  })
  await notifyChanges(
    ctx.tx,
    [...touched.values()].map(({ s }) => ({ kind: s.documentKind, id: s.documentId })),
  )
  return id
}
