import { afterAll, beforeAll, expect, test } from 'vitest'
import { answerQuestion } from '../../server/approval/answer-question'
import { closeWorkshop } from '../../server/files/workshop'
import { askAboutLine } from '../../server/order/ask-about-line'
import { computeProposal } from '../../server/order/compute-proposal'
import { layOnTray, takeOffTray } from '../../server/order/lay-tray'
import { putAside } from '../../server/order/put-aside'
import { readDesk } from '../../server/order/read-desk'
import { REQUISITION } from '../../server/requisition/kind'
import { readMine } from '../../server/requisition/read-mine'
import { readMe } from '../../server/session/read-me'
import { readTrail } from '../../server/trail/read-trail'
import { ordering } from '../setup/ordering'
import { soundDraft, freeLine } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

const [LEONIE, OWEN, INES] = ['Leonie Farrow', 'Owen Marsh', 'Ines Adeyemi']
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('update budget_balance set budgeted = budgeted + 1000000')
})
afterAll(async () => {
  closeWorkshop()
  await rekko.stop()
})
const { approved, lay } = ordering(() => rekko)

/** A line of a request of one line, or of one of two, and the request. */
async function asked(lines = 1): Promise<{ id: string; requestId: string; ids: string[] }> {
  const ids = await approved(soundDraft([], { lines: Array.from({ length: lines }, () => freeLine('12.50')) }))
  const id = ids[0] ?? expect.fail('it has a line')
  const requestId = (await desk()).lines.find((l) => l.id === id)?.requisitionId ?? expect.fail('it waits')
  return { id, requestId, ids }
}
const desk = (aside: 'no' | 'yes' = 'no') =>
  rekko.as(LEONIE, (ctx) => readDesk(ctx, 500, { words: '', supplier: 'any', due: 'any', aside }))
const ask = (id: string, text = 'Would blue do?', by = LEONIE) => rekko.as(by, (ctx) => askAboutLine(ctx, id, text))
const answer = (requestId: string, text = 'Yes, blue.', by = OWEN) =>
  rekko.as(by, (ctx) => answerQuestion(ctx, REQUISITION, requestId, text))
const takeUp = (id: string) => rekko.as(LEONIE, (ctx) => putAside(ctx, { lineIds: [id], until: null, reason: '' }))
/** Where a line stands, and whether everything that counts or proposes lines agrees. */
async function stands(id: string): Promise<string> {
  const [waits, aside] = [await desk(), await desk('yes')]
  for (const d of [waits, aside]) expect(d.total).toBe(d.lines.length)
  expect((await rekko.as(LEONIE, (ctx) => readMe(ctx))).waiting.order).toBe(waits.lines.length)
  const isIn = (d: typeof waits) => d.lines.some((l) => l.id === id)
  const options = {
    choose: 'oldest',
    waitFor: null,
    windowDays: null,
    mostRequests: null,
    byDepartment: false,
  } as const
  const proposed = await rekko.as(LEONIE, (ctx) => computeProposal(ctx, options))
  expect(proposed.rows.has(id)).toBe(isIn(waits))
  return [...(isIn(waits) ? ['waits'] : []), ...(isIn(aside) ? ['aside'] : [])].join(' and ')
}
const line = async (id: string) => [...(await desk()).lines, ...(await desk('yes')).lines].find((l) => l.id === id)
/** What waits for whoever asked. */
const need = async (by = OWEN) => (await rekko.as(by, (ctx) => readMe(ctx))).waiting.need
const told = async (name: string) =>
  (
    await rekko.db.execute(
      `select t.told ->> 'text' as text from notice t join person p on p.id = t.person_id where p.name = '${name}'`,
    )
  ).rows.map((r) => String((r as { text: unknown }).text))

test('a line about which a buyer asks waits for the answer, and then on the Desk with it', async () => {
  const { id, requestId } = await asked()
  const before = await need()
  expect(await stands(id)).toBe('waits')
  await ask(id, '  Would blue do?  ')
  expect(await stands(id)).toBe('aside')
  expect((await line(id))?.asked).toMatchObject({ by: LEONIE, text: 'Would blue do?', isOpen: true, answer: null })
  expect(await need()).toBe(before + 1)
  expect(await told(OWEN)).toContain('Would blue do?')

  const trail = await rekko.as(OWEN, (ctx) => readTrail(ctx, requestId))
  expect(trail).toMatchObject({ state: 'approved', sentence: expect.stringMatching(/asks something/) as string })
  expect(trail.next).toBe('Leonie Farrow asked something; answer below, and it is ordered.')
  expect(trail.actions).toContainEqual(expect.objectContaining({ name: 'answer', allowed: true }))
  expect(trail.stations.filter((s) => s.waits).map((s) => s.name)).toEqual(['Order'])
  const mine = await rekko.as(OWEN, (ctx) => readMine(ctx, { view: 'waiting', words: '', limit: 100 }))
  expect(mine.rows.map((r) => r.id)).toContain(requestId)

  await answer(requestId)
  expect(await stands(id)).toBe('waits')
  expect((await line(id))?.asked).toMatchObject({ isOpen: false, answer: 'Yes, blue.' })
  expect(await need()).toBe(before)
  expect(await told(LEONIE)).toContain('Yes, blue.')
  // What was approved is approved still, and nobody is asked again.
  expect(await rekko.as(OWEN, (ctx) => readTrail(ctx, requestId))).toMatchObject({ state: 'approved' })
  const laid = await lay([id])
  await rekko.as(LEONIE, (ctx) => takeOffTray(ctx, laid, null))
})

test('asked again and answered once, it waits again; one answer is for all that was asked of its request', async () => {
  const { ids, requestId } = await asked(2)
  const [one = '', two = ''] = ids
  await ask(one, 'Which size?')
  await ask(one, 'And by when at the latest?')
  expect([await stands(one), await stands(two)]).toEqual(['aside', 'waits'])
  await ask(two)
  expect((await line(two))?.asked?.text).toMatch(/: Would blue do\?$/)
  await answer(requestId, 'Medium; by Friday; yes.')
  expect([await stands(one), await stands(two)]).toEqual(['waits', 'waits'])
  await ask(one, 'Sure?')
  expect((await line(one))?.asked).toMatchObject({ text: expect.stringMatching(/Sure\?/) as string, answer: null })
  await answer(requestId, 'Sure.')
  await expect(answer(requestId, '')).rejects.toMatchObject({ status: 422 })
})

test('taken up again, or laid on a tray, it waits for no answer any more, and its owner for nothing', async () => {
  const { id, requestId } = await asked()
  const before = await need()
  await ask(id)
  await takeUp(id)
  expect(await stands(id)).toBe('waits')
  expect(await need()).toBe(before)
  await ask(id)
  const parts = [{ lineId: id, quantity: null }]
  const { orderId } = await rekko.as(LEONIE, (ctx) => layOnTray(ctx, { orderId: null, supplierId: null, parts }))
  expect(await need()).toBe(before)
  await expect(ask(id)).rejects.toThrow(/lies on a tray/)
  await rekko.as(LEONIE, (ctx) => takeOffTray(ctx, orderId, null))
  expect(await stands(id)).toBe('waits')
  const { actions } = await rekko.as(OWEN, (ctx) => readTrail(ctx, requestId))
  expect(actions.map((a) => a.name)).not.toContain('answer')
})

test('is asked by its buyers alone, with words, and answered by whoever asked for it', async () => {
  const { id, requestId } = await asked()
  await expect(ask(id, '   ')).rejects.toMatchObject({ status: 422 })
  await expect(ask(id, 'Which?', OWEN)).rejects.toMatchObject({ status: 404 })
  await expect(ask(crypto.randomUUID())).rejects.toMatchObject({ status: 404 })
  await ask(id)
  await expect(answer(requestId, 'Yes.', INES)).rejects.toMatchObject({ status: 404 })
  await expect(answer(requestId, 'Yes.', LEONIE)).rejects.toMatchObject({ status: 403 })
  expect(await stands(id)).toBe('aside')
  await answer(requestId)
})

test('what whoever decided asked and nobody answered keeps no approved request waiting', async () => {
  const { id, requestId } = await asked()
  const before = await need()
  await rekko.arrange(
    `insert into remark (document_id, person_id, at, kind, text)
      select $1, id, now(), 'question', 'Why?' from person where name = $2`,
    [requestId, INES],
  )
  expect([await stands(id), await need()]).toEqual(['waits', before])
  const { actions } = await rekko.as(OWEN, (ctx) => readTrail(ctx, requestId))
  expect(actions.map((a) => a.name)).not.toContain('answer')
})
