import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { decide } from '../../server/approval/decide'
import { takeBack } from '../../server/approval/take-back'
import { exportDecided, readDecided } from '../../server/decide/read-decided'
import { readRequestDecision } from '../../server/decide/read-request-decision'
import { DECIDABLES } from '../../server/kinds'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import type { DecidedAsked } from '#shared/contract/decided'
import { freeLine, soundDraft, TODAY } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
})
afterAll(() => rekko.stop())

const REQUISITIONS = DECIDABLES.requisition ?? expect.fail('requisitions are decided on')
async function raise(price: string, title: string, by = 'Owen Marsh', change: Parameters<typeof freeLine>[1] = {}) {
  const id = crypto.randomUUID()
  const draft = soundDraft([], { title, lines: [freeLine(price, change)] })
  await rekko.as(by, (ctx) => createDraft(ctx, id, draft))
  await rekko.as(by, (ctx) => sendRequisition(ctx, id, 1))
  return id
}
const versionOf = (id: string) =>
  rekko.as('Owen Marsh', async ({ tx }) => (await REQUISITIONS.find(tx, id))?.version ?? 0)
const act = async (by: string, id: string, move: 'approve' | 'reject' | 'sendBack', comment = '') => {
  const version = await versionOf(id)
  return rekko.as(by, (ctx) => decide(ctx, REQUISITIONS, id, version, move, comment))
}
const decision = (by: string, id: string) => rekko.as(by, (ctx) => readRequestDecision(ctx, id))

describe('one of several that make one', () => {
  test('is told to whoever decides on it, with title, day and amount of the others, and to nobody else', async () => {
    const first = await raise('700', 'Seals for pump one')
    expect((await decision('Ines Adeyemi', first)).split).toBeNull()
    // Of another supplier, or none: nothing in common but the account.
    await raise('900', 'Something else', 'Owen Marsh', { supplierId: null, categoryId: null })
    expect((await decision('Ines Adeyemi', first)).split).toBeNull()
    const second = await raise('600', 'Seals for pump two')
    for (const [id, other] of [
      [first, 'Seals for pump two'],
      [second, 'Seals for pump one'],
    ] as const) {
      const { split } = await decision('Ines Adeyemi', id)
      expect(split?.others).toMatchObject([{ title: other, day: TODAY }])
      expect(split?.sentence.replace(/EUR [\d,.]+/, 'EUR ...')).toBe(
        'With one other request of Owen Marsh to Harbour Waste within 7 days it comes to EUR ...: ' +
          'more than Ines Adeyemi may approve, which is 1,000.00.',
      )
    }
    expect((await decision('Owen Marsh', first)).split).toBeNull()
    expect((await decision('Greta Molin', first)).split).toBeNull()
    // What was rejected is no part of anything any more.
    await act('Ines Adeyemi', second, 'reject', 'one will do')
    expect((await decision('Ines Adeyemi', first)).split).toBeNull()
    await act('Ines Adeyemi', first, 'sendBack', 'say how many')
  })
})

describe('what was decided', () => {
  const asked = (change: Partial<DecidedAsked> = {}): DecidedAsked => ({ whose: 'own', words: '', ...change })
  const look = (by: string, change: Partial<DecidedAsked> = {}) =>
    rekko.as(by, (ctx) => readDecided(ctx, asked(change)))
  const titles = async (by: string, change: Partial<DecidedAsked> = {}) =>
    (await look(by, change)).rows.map((r) => `${r.title}: ${r.outcome}${r.takenBack ? ', taken back' : ''}`)

  test('is found by whoever decided, and by those above them as far as they may see it', async () => {
    expect(await titles('Ines Adeyemi')).toEqual(['Seals for pump one: sent back', 'Seals for pump two: rejected'])
    expect(await titles('Owen Marsh')).toEqual([])
    expect(await titles('Owen Marsh', { whose: 'people' })).toEqual([])
    // Tomas Brandt is above her; he holds the budget line that pays.
    expect(await titles('Tomas Brandt')).toEqual([])
    expect(await titles('Tomas Brandt', { whose: 'people' })).toHaveLength(2)
    // Marguerite Oduya is above both, and sees neither request.
    expect(await titles('Marguerite Oduya', { whose: 'people' })).toEqual([])
    expect(await titles('Signe Aalto', { whose: 'all' })).toHaveLength(2)
    await expect(look('Ines Adeyemi', { whose: 'all' })).rejects.toThrow(/for finance and auditors/)
  })

  test('by outcome, words, number and days; what was taken back says so', async () => {
    const id = await raise('500', 'Reagents')
    const { decisionId } = await act('Ines Adeyemi', id, 'approve')
    await rekko.as('Ines Adeyemi', (ctx) => takeBack(ctx, REQUISITIONS, id, decisionId))
    expect(await titles('Ines Adeyemi', { outcome: 'approved' })).toEqual(['Reagents: approved, taken back'])
    expect(await titles('Ines Adeyemi', { words: 'pump seals' })).toHaveLength(2)
    expect(await titles('Ines Adeyemi', { words: 'owen two' })).toEqual(['Seals for pump two: rejected'])
    const [newest] = (await look('Ines Adeyemi')).rows
    expect(newest).toMatchObject({
      isOwn: true,
      by: 'Ines Adeyemi',
      policy: 1,
      state: 'in approval',
      amount: expect.any(String),
    })
    expect(await titles('Ines Adeyemi', { words: newest?.number ?? '' })).toEqual(['Reagents: approved, taken back'])
    expect(await titles('Ines Adeyemi', { until: '2000-01-01' })).toEqual([])
    expect(await titles('Ines Adeyemi', { from: TODAY, until: TODAY })).toHaveLength(3)
    const { bytes } = await rekko.as('Ines Adeyemi', (ctx) => exportDecided(ctx, { ...asked(), as: 'csv' }))
    const lines = bytes.toString('utf8').trim().split('\n')
    expect(lines).toHaveLength(4)
    expect(lines.join('\n')).toContain('one will do')
  })
})
