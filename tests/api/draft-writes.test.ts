import { randomUUID } from 'node:crypto'
import fc from 'fast-check'
import { afterAll, beforeAll, expect, test } from 'vitest'
import type { DraftLine } from '#core/requisition/draft'
import { requisitionLine } from '../../server/db/schema/requisition'
import { eq, sql } from 'drizzle-orm'
import { findRequisition } from '../../server/requisition/reads'
import { createDraft, saveDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { withdrawRequisition } from '../../server/requisition/withdraw-requisition'
import { budgetLineId, fiscalYear, freeLine, soundDraft } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
})
afterAll(() => rekko.stop())

const kept = async (id: string) => {
  const found = await findRequisition(rekko.db, id)
  if (found === null) throw new Error('the draft is gone')
  return found
}
/** The versions of the rows of a draft's lines, by their ids: a row that is written has another. */
const rowsOf = async (id: string) => {
  const rows = await rekko.db
    .select({ id: requisitionLine.id, row: sql<string>`xmin::text` })
    .from(requisitionLine)
    .where(eq(requisitionLine.requisitionId, id))
  return new Map(rows.map((r) => [r.id, r.row]))
}
const line = (n: number): DraftLine => freeLine(String(n + 1), { description: `Thing ${n}` })
const payers = ['616', '610'].map((account) => budgetLineId('Water Systems', account, fiscalYear()))

const change = fc.oneof(
  fc.record({ what: fc.constant('add' as const), at: fc.nat(9), n: fc.nat(99) }),
  fc.record({ what: fc.constant('take' as const), at: fc.nat(9) }),
  fc.record({ what: fc.constant('move' as const), at: fc.nat(9), to: fc.nat(9) }),
  fc.record({ what: fc.constant('rewrite' as const), at: fc.nat(9), n: fc.nat(99) }),
  fc.record({ what: fc.constant('divide' as const), at: fc.nat(9) }),
  fc.record({ what: fc.constant('nothing' as const) }),
)

test('whatever is changed in whatever order, what is kept is what was written, and rows that stay are left alone', () =>
  fc.assert(
    fc.asyncProperty(fc.array(change, { minLength: 1, maxLength: 8 }), async (changes) => {
      const id = randomUUID()
      let lines = [line(0), line(1), line(2)]
      const draft = soundDraft([])
      await rekko.as('Owen Marsh', (ctx) => createDraft(ctx, id, { ...draft, lines }))
      for (const [n, c] of changes.entries()) {
        const before = new Map(lines.map((l, at) => [l.id, { at, text: JSON.stringify(l) }]))
        const next = [...lines]
        const at = 'at' in c ? c.at % Math.max(1, next.length) : 0
        const here = next[at]
        if (c.what === 'add') next.splice(at, 0, line(c.n))
        if (c.what === 'take') next.splice(at, 1)
        if (c.what === 'move' && here !== undefined) next.splice(c.to % next.length, 0, ...next.splice(at, 1))
        if (c.what === 'rewrite' && here !== undefined) next[at] = { ...here, quantity: String(c.n + 1) }
        if (c.what === 'divide' && here !== undefined)
          next[at] = { ...here, codings: payers.map((budgetLineId) => ({ budgetLineId, value: '50' })) }
        const rows = await rowsOf(id)
        await rekko.as('Owen Marsh', (ctx) => saveDraft(ctx, id, n + 1, { ...draft, lines: next }))
        expect((await kept(id)).draft.lines).toEqual(next)
        const now = await rowsOf(id)
        for (const [position, l] of next.entries()) {
          const was = before.get(l.id)
          const stays = was !== undefined && was.at === position && was.text === JSON.stringify(l)
          expect([l.id, now.get(l.id) === rows.get(l.id)]).toEqual([l.id, stays])
        }
        lines = next
      }
    }),
    { numRuns: 40 },
  ))

test('what a sending froze on lines is forgotten with the first change after it, on those that stay too', async () => {
  const id = randomUUID()
  const draft = { ...soundDraft([]), lines: [line(1500), line(2)] }
  const owen = <T>(work: Parameters<typeof rekko.as<T>>[1]) => rekko.as('Owen Marsh', work)
  await owen((ctx) => createDraft(ctx, id, draft))
  await owen((ctx) => sendRequisition(ctx, id, 1))
  expect((await kept(id)).lines.map((l) => l.perBase)).toEqual(['1', '1'])
  await owen(async (ctx) => withdrawRequisition(ctx, id, (await kept(id)).version))
  const [first, second] = draft.lines
  if (first === undefined || second === undefined) throw new Error('no lines')
  const changed = { ...draft, lines: [first, { ...second, quantity: '7' }] }
  await owen(async (ctx) => saveDraft(ctx, id, (await kept(id)).version, changed))
  const { lines } = await kept(id)
  expect(lines.map((l) => [l.perBase, l.taxRate, l.reclaimables])).toEqual([
    [null, null, [null]],
    [null, null, [null]],
  ])
})
