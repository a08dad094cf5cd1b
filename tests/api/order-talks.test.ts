import { afterAll, beforeAll, expect, test } from 'vitest'
import { noteTalk } from '../../server/order/note-talk'
import { readOrder } from '../../server/order/read-order'
import { ordering } from '../setup/ordering'
import { openUseCases, type UseCases } from '../setup/use-cases'

const [LEONIE, HARRIET, OWEN, SIGNE] = ['Leonie Farrow', 'Harriet Voss', 'Owen Marsh', 'Signe Aalto']
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('update budget_balance set budgeted = budgeted + 1000000')
})
afterAll(() => rekko.stop())
const { approvedLine, lay, issue } = ordering(() => rekko)

const CALL = { way: 'telephone', with: ' Jo, order desk ', text: ' They send it on Friday. ' } as const
const talks = async (id: string, by = LEONIE) => (await rekko.as(by, (ctx) => readOrder(ctx, id))).talks

test('what was said with a supplier is noted by whoever buys, and read by whoever sees orders', async () => {
  const id = await lay([await approvedLine('12.50')])
  const note = (by: string, said: Parameters<typeof noteTalk>[2]) => rekko.as(by, (ctx) => noteTalk(ctx, id, said))
  // Nothing is said about what was not issued; whose it is not does not see it either.
  await expect(note(LEONIE, CALL)).rejects.toMatchObject({ type: 'on-the-desk' })
  await issue(id)
  await note(LEONIE, CALL)
  await note(HARRIET, { way: 'mail', with: 'Jo', text: 'Friday it is.\nIn two boxes.' })
  expect((await talks(id)).map((t) => [t.way, t.with, t.text, t.by])).toEqual(
    expect.arrayContaining([
      ['telephone', 'Jo, order desk', 'They send it on Friday.', LEONIE],
      ['mail', 'Jo', 'Friday it is.\nIn two boxes.', HARRIET],
    ]),
  )
  expect([(await talks(id, SIGNE)).length, (await talks(id, OWEN)).length]).toEqual([2, 0])
  await expect(note('Priya Lindqvist', CALL)).rejects.toMatchObject({ status: 404 })
  const { rows } = await rekko.db.execute<{ after: object }>(
    `select after from event where subject_id = '${id}' and type = 'spoken about' order by seq`,
  )
  expect(rows.map((r) => r.after)).toMatchObject([{ with: 'Jo, order desk' }, { way: 'mail' }])
})
