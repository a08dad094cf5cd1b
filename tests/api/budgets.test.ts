import { afterAll, beforeAll, expect, test } from 'vitest'
import { NOTHING, dec } from '#core/base/decimal'
import type { Money } from '#core/base/money'
import type { BudgetEntryView, BudgetLineView } from '#shared/contract/budget'
import {
  budgetLineId,
  decide,
  fiscalYear,
  freeLine,
  raise,
  soundDraft,
  startRekko,
  versionOf,
  type Client,
  type Rekko,
} from '../setup/rekko'

let rekko: Rekko
let owen: Client, tomas: Client, ines: Client
beforeAll(async () => {
  rekko = await startRekko()
  ;[owen, tomas, ines] = (await Promise.all(['Owen Marsh', 'Tomas Brandt', 'Ines Adeyemi'].map(rekko.as))) as [
    Client,
    Client,
    Client,
  ]
})
afterAll(async () => {
  await rekko.stop()
})

const WASTE = () => budgetLineId('Water Systems', '616', fiscalYear())
const budgets = async (who: Client) =>
  (await who.call<{ lines: BudgetLineView[]; year: number }>('GET', '/api/budgets')).body
const waste = async (who: Client) => {
  const line = (await budgets(who)).lines.find((l) => l.id === WASTE())
  if (line === undefined) throw new Error('the line is not shown')
  return line
}
const entries = async (who: Client) => {
  const all: BudgetEntryView[] = []
  for (let before: number | null | undefined; before !== null;) {
    const page = (
      await who.call<{ entries: BudgetEntryView[]; next: number | null }>(
        'GET',
        `/api/budgets/${WASTE()}/entries${before === undefined ? '' : `?before=${before}`}`,
      )
    ).body
    all.push(...page.entries)
    before = page.next
  }
  return all
}

test(
  'every figure of a line is the sum of the entries behind it, through sending, rejecting and ' + 'withdrawing',
  async () => {
    const kept = await raise(owen, soundDraft([], { lines: [freeLine('40')] }))
    const rejected = await raise(owen, soundDraft([], { lines: [freeLine('300.10')] }))
    const withdrawn = await raise(owen, soundDraft([], { lines: [freeLine('260')] }))
    expect([kept.status, rejected.status, withdrawn.status]).toEqual([200, 200, 200])
    expect((await waste(tomas)).reserved.amount).toBe('600.10')
    expect((await decide(rekko, ines, rejected.id, 'reject', 'no')).status).toBe(200)
    expect(
      (
        await owen.call('POST', `/api/requisitions/${withdrawn.id}/withdraw`, {
          version: await versionOf(rekko, withdrawn.id),
        })
      ).status,
    ).toBe(200)
    const line = await waste(tomas)
    const found = await entries(tomas)
    for (const stage of ['reserved', 'committed', 'spent'] as const) {
      expect([stage, dec(line[stage].amount).toFixed(2)]).toEqual([
        stage,
        found
          .filter((e) => e.stage === stage)
          .reduce((sum, e) => sum.plus(dec(e.amount)), NOTHING)
          .toFixed(2),
      ])
    }
    expect(line.reserved.amount).toBe('40.00')
    expect(
      dec(line.given.amount)
        .minus(dec(line.reserved.amount))
        .minus(dec(line.committed.amount))
        .minus(dec(line.spent.amount))
        .eq(dec(line.available.amount)),
    ).toBe(true)
    expect(line.byPeriod.reduce((sum, p) => sum.plus(dec(p.reserved.amount)), NOTHING).toFixed(2)).toBe('40.00')
    // Newest first, each once, nothing edited: what was reserved and freed stands there as two entries.
    expect(found.map((e) => e.seq)).toEqual([...found.map((e) => e.seq)].sort((a, b) => b - a))
    expect(found.filter((e) => e.documentId === rejected.id).map((e) => e.amount)).toEqual(['-300.1', '300.1'])
  },
)

test(
  'who holds no line and is of another department sees none of it; a year without budgets is empty, not an ' + 'error',
  async () => {
    const sorrel = await rekko.as('Sorrel Quist')
    expect((await budgets(sorrel)).lines.map((l) => l.id)).not.toContain(WASTE())
    const greta = await rekko.as('Greta Molin')
    expect((await budgets(greta)).lines.length).toBeGreaterThan((await budgets(sorrel)).lines.length)
    expect((await tomas.call<{ lines: unknown[] }>('GET', '/api/budgets?year=1991')).body.lines).toEqual([])
    expect((await tomas.call('GET', '/api/budgets?year=soon')).status).toBe(422)
  },
)

test('departments stand below the one that they are part of, whose sums hold theirs', async () => {
  const greta = await rekko.as('Greta Molin')
  const { lines, departments } = (
    await greta.call<{
      lines: BudgetLineView[]
      departments: { name: string; depth: number; hasBelow: boolean; given: Money; available: Money }[]
    }>('GET', '/api/budgets')
  ).body
  const at = (name: string) => departments.findIndex((d) => d.name === name)
  const [care, rescue] = [departments[at('Animal Care')], departments[at('Rescue Centre')]]
  expect(at('Rescue Centre')).toBe(at('Animal Care') + 1)
  expect([care?.depth, care?.hasBelow, rescue?.depth, rescue?.hasBelow]).toEqual([0, true, 1, false])
  const cents = (of: readonly string[], pick: (l: BudgetLineView) => Money) =>
    lines.filter((l) => of.includes(l.department)).reduce((s, l) => s + Math.round(Number(pick(l).amount) * 100), 0)
  const whole = ['Animal Care', 'Rescue Centre']
  expect(Math.round(Number(care?.given.amount) * 100)).toBe(cents(whole, (l) => l.given))
  expect(Math.round(Number(care?.available.amount) * 100)).toBe(cents(whole, (l) => l.available))
  expect(Math.round(Number(rescue?.given.amount) * 100)).toBe(cents(['Rescue Centre'], (l) => l.given))
  // Lines stand in the order of their departments.
  expect([...new Set(lines.map((l) => l.department))]).toEqual(departments.map((d) => d.name))
})
