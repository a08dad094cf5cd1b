import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { askQuestion } from '../../server/approval/ask-question'
import { answerQuestion } from '../../server/approval/answer-question'
import { callBack } from '../../server/approval/call-back'
import { decide, type DecideMove } from '../../server/approval/decide'
import { handSeat } from '../../server/approval/hand-seat'
import { listOpenActors } from '../../server/approval/reads'
import { routeAgain } from '../../server/approval/route-again'
import { readRequestDecision } from '../../server/decide/read-request-decision'
import { listSlips } from '../../server/decide/reads'
import { listRemarks } from '../../server/document/reads'
import { REQUISITION } from '../../server/requisition/kind'
import { createDraft, saveDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { readTrail } from '../../server/trail/read-trail'
import type { HandedHow } from '#core/approval/handed'
import { freeLine, personId, soundDraft } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

// Owen Marsh’s manager is Ines Adeyemi, who decides up to 1,000; hers is Tomas Brandt, up to 5,000. Kaveh Dorani
// decides up to 5,000 too; Priya Lindqvist and Jonas Abara have no such limit.
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  // Enough that no holder of a budget line is asked besides.
  await rekko.arrange('update budget_balance set budgeted = budgeted + 100000')
})
afterAll(() => rekko.stop())

async function raise(price = '260'): Promise<string> {
  const id = crypto.randomUUID()
  await rekko.as('Owen Marsh', (ctx) => createDraft(ctx, id, soundDraft([], { lines: [freeLine(price)] })))
  await rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, id, 1))
  return id
}
const versionOf = async (id: string) =>
  (await rekko.as('Owen Marsh', (ctx) => REQUISITION.find(ctx.tx, id)))?.version ?? expect.fail('it is there')
const open = async (id: string) =>
  (await rekko.as('Owen Marsh', (ctx) => listOpenActors(ctx.tx, id))).map((p) => p.name)
const hand = (by: string, id: string, to: string, how: HandedHow = 'on', comment = '') =>
  rekko.as(by, (ctx) => handSeat(ctx, REQUISITION, id, { how, toId: personId(to), comment }))
const call = (by: string, id: string, handingId: string) =>
  rekko.as(by, (ctx) => callBack(ctx, REQUISITION, id, handingId))
const move = async (by: string, id: string, what: DecideMove = 'approve', comment = '') => {
  const version = await versionOf(id)
  return rekko.as(by, (ctx) => decide(ctx, REQUISITION, id, version, what, comment))
}
const waitsFor = async (name: string, id: string) =>
  (await rekko.as(name, (ctx) => listSlips(ctx.tx, personId(name)))).some((s) => s.id === id)
const sees = (name: string, id: string) =>
  rekko
    .as(name, (ctx) => readRequestDecision(ctx, id))
    .then(
      () => true,
      () => false,
    )
const stateOf = async (id: string) => (await rekko.as('Owen Marsh', (ctx) => readTrail(ctx, id))).state

describe('passing on', () => {
  test('the receiver decides instead, and sees it; whoever passed it on goes on seeing it', async () => {
    const id = await raise()
    expect(await sees('Kaveh Dorani', id)).toBe(false)
    await hand('Ines Adeyemi', id, 'Kaveh Dorani', 'on', 'You know the pumps.')
    expect([await open(id), await waitsFor('Ines Adeyemi', id)]).toEqual([['Kaveh Dorani'], false])
    expect([await sees('Kaveh Dorani', id), await sees('Ines Adeyemi', id)]).toEqual([true, true])
    await expect(move('Ines Adeyemi', id)).rejects.toThrow(/asked to decide/)
    // Routed again, as when people change, it stays with them.
    await rekko.as('Owen Marsh', async (ctx) =>
      expect(
        await routeAgain(ctx, REQUISITION, (await REQUISITION.find(ctx.tx, id, true)) ?? expect.fail('gone')),
      ).toBe(false),
    )
    expect((await rekko.as('Kaveh Dorani', (ctx) => readRequestDecision(ctx, id))).remarks.at(-1)?.text).toBe(
      'You know the pumps.',
    )
    expect((await move('Kaveh Dorani', id)).state).toBe('approved')
  })
  test('where limits count and theirs does not cover it, it goes on from there', async () => {
    const id = await raise()
    await hand('Ines Adeyemi', id, 'Priya Lindqvist')
    await move('Priya Lindqvist', id)
    expect([await stateOf(id), await open(id)]).toEqual(['in approval', ['Tomas Brandt']])
    expect((await move('Tomas Brandt', id)).state).toBe('approved')
  })
  test('it is called back until they decide, by whoever passed it on', async () => {
    const id = await raise()
    const { handingId } = await hand('Ines Adeyemi', id, 'Kaveh Dorani')
    await expect(call('Kaveh Dorani', id, handingId)).rejects.toThrow(/Only whoever handed it on/)
    await call('Ines Adeyemi', id, handingId)
    expect([await open(id), await sees('Kaveh Dorani', id)]).toEqual([['Ines Adeyemi'], false])
    await expect(call('Ines Adeyemi', id, handingId)).rejects.toThrow(/handed on/)
    const again = await hand('Ines Adeyemi', id, 'Priya Lindqvist')
    await move('Priya Lindqvist', id)
    await expect(call('Ines Adeyemi', id, again.handingId)).rejects.toThrow(/Priya Lindqvist has decided/)
    expect(await open(id)).toEqual(['Tomas Brandt'])
  })
  test('from hand to hand, and back', async () => {
    const id = await raise()
    await hand('Ines Adeyemi', id, 'Kaveh Dorani')
    await hand('Kaveh Dorani', id, 'Priya Lindqvist')
    expect(await open(id)).toEqual(['Priya Lindqvist'])
    await hand('Priya Lindqvist', id, 'Ines Adeyemi')
    expect(await open(id)).toEqual(['Ines Adeyemi'])
    expect((await move('Ines Adeyemi', id)).state).toBe('approved')
  })
  test('nobody gets it who is asked anyway, raised it, is gone, or is away with nobody instead', async () => {
    const id = await raise('1600')
    const refuses = (to: string) => expect(hand('Ines Adeyemi', id, to)).rejects
    await refuses('Tomas Brandt').toThrow(/asked about it anyway/)
    await refuses('Ines Adeyemi').toThrow(/asked already/)
    await refuses('Owen Marsh').toThrow(/nobody decides on their own/)
    await rekko.arrange(
      `insert into absence (person_id, from_day, until_day, note)
        values ($1, current_date - 400, current_date + 400, '')`,
      [personId('Jonas Abara')],
    )
    await refuses('Jonas Abara').toThrow(/away/)
    await rekko.arrange('delete from absence where person_id = $1', [personId('Jonas Abara')])
    // Only whoever is asked now hands anything on.
    await expect(hand('Tomas Brandt', id, 'Kaveh Dorani')).rejects.toThrow(/asked to decide/)
    expect(await open(id)).toEqual(['Ines Adeyemi'])
  })
  test('whoever it was passed on to becomes its owner: it is asked of its giver again', async () => {
    const id = await raise()
    await hand('Ines Adeyemi', id, 'Kaveh Dorani')
    await rekko.arrange('update document set owner_id = $2 where id = $1', [id, personId('Kaveh Dorani')])
    await rekko.as('Owen Marsh', async (ctx) =>
      routeAgain(ctx, REQUISITION, (await REQUISITION.find(ctx.tx, id, true)) ?? expect.fail('gone')),
    )
    expect(await open(id)).not.toContain('Kaveh Dorani')
  })
  test('sent back and sent again with no more, what was passed on stays so; changed, it begins anew', async () => {
    const id = await raise()
    await hand('Ines Adeyemi', id, 'Kaveh Dorani')
    await move('Kaveh Dorani', id, 'sendBack', 'Which pump?')
    const back = await versionOf(id)
    await rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, id, back))
    expect(await open(id)).toEqual(['Kaveh Dorani'])
    await move('Kaveh Dorani', id, 'sendBack', 'Still: which pump?')
    const draft = soundDraft([], { lines: [freeLine('270')] })
    const version = await versionOf(id)
    const saved = await rekko.as('Owen Marsh', (ctx) => saveDraft(ctx, id, version, draft))
    await rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, id, saved.version))
    expect(await open(id)).toEqual(['Ines Adeyemi'])
  })
})

describe('having somebody decide first, or as well', () => {
  test('first: whoever wished it is asked when they approved, and may call it back', async () => {
    const id = await raise()
    const { handingId } = await hand('Ines Adeyemi', id, 'Priya Lindqvist', 'first')
    expect([await open(id), await waitsFor('Ines Adeyemi', id)]).toEqual([['Priya Lindqvist'], false])
    await call('Ines Adeyemi', id, handingId)
    expect(await open(id)).toEqual(['Ines Adeyemi'])
    await hand('Ines Adeyemi', id, 'Priya Lindqvist', 'first')
    await move('Priya Lindqvist', id)
    expect([await stateOf(id), await open(id)]).toEqual(['in approval', ['Ines Adeyemi']])
    expect((await move('Ines Adeyemi', id)).state).toBe('approved')
  })
  test('as well: both have to approve, and either may send it back', async () => {
    const id = await raise()
    await hand('Ines Adeyemi', id, 'Priya Lindqvist', 'as well')
    expect(await open(id)).toEqual(['Ines Adeyemi', 'Priya Lindqvist'])
    await move('Ines Adeyemi', id)
    expect([await stateOf(id), await open(id)]).toEqual(['in approval', ['Priya Lindqvist']])
    expect((await move('Priya Lindqvist', id, 'sendBack', 'No.')).state).toBe('sent back')
  })
})

describe('asking anybody', () => {
  test('whoever is asked sees it and answers; the step stays where it is', async () => {
    const id = await raise()
    expect(await sees('Jonas Abara', id)).toBe(false)
    const ask = (toId: string | null, text: string) =>
      rekko.as('Ines Adeyemi', (ctx) => askQuestion(ctx, REQUISITION, id, text, toId))
    await ask(personId('Jonas Abara'), 'Have we two of these?')
    await ask(null, 'For which pump?')
    expect(await open(id)).toEqual(['Ines Adeyemi'])
    await expect(ask(personId('Ines Adeyemi'), 'Me?')).rejects.toThrow(/somebody else/)
    // To the owner by name is to the owner.
    const seen = await rekko.as('Jonas Abara', (ctx) => readTrail(ctx, id))
    expect(seen.actions.find((a) => a.name === 'answer')).toMatchObject({ allowed: true })
    expect(seen.next).toMatch(/answer below/)
    await rekko.as('Jonas Abara', (ctx) => answerQuestion(ctx, REQUISITION, id, 'No, one.'))
    const remarks = async () =>
      (await rekko.as('Ines Adeyemi', (ctx) => listRemarks(ctx.tx, id))).map((r) => [r.text, r.to, r.answered])
    expect(await remarks()).toEqual([
      ['Have we two of these?', 'Jonas Abara', true],
      ['For which pump?', null, false],
      ['No, one.', null, false],
    ])
    // Once answered there is nothing for them to answer, and the owner's question stays open.
    await expect(rekko.as('Jonas Abara', (ctx) => answerQuestion(ctx, REQUISITION, id, 'Or two.'))).rejects.toThrow(
      /somebody who was asked/,
    )
    await rekko.as('Owen Marsh', (ctx) => answerQuestion(ctx, REQUISITION, id, 'The big one.'))
    expect((await remarks())[1]).toEqual(['For which pump?', null, true])
    expect(await sees('Jonas Abara', id)).toBe(true)
  })
})

test('what makes one look twice is told to whoever decides', async () => {
  const id = await raise('990')
  const marks = (await rekko.as('Ines Adeyemi', (ctx) => readRequestDecision(ctx, id))).marks
  expect(marks).toContain('near a limit')
  expect((await rekko.as('Owen Marsh', (ctx) => readRequestDecision(ctx, id))).marks).toEqual([])
})

test('what the department asked for lately of the same stands beside, as far as one may see it', async () => {
  const ask = async (who: string) => {
    const id = crypto.randomUUID()
    const draft = soundDraft([{ part: 'CP-UV-80A', quantity: 3 }])
    await rekko.as(who, (ctx) => createDraft(ctx, id, draft))
    await rekko.as(who, (ctx) => sendRequisition(ctx, id, 1))
    return id
  }
  const [first, second] = [await ask('Rosa Castell'), await ask('Owen Marsh')]
  const seen = (await rekko.as('Ines Adeyemi', (ctx) => readRequestDecision(ctx, second))).similar
  expect(seen.map((s) => [s.id, s.owner])).toEqual([[first, 'Rosa Castell']])
  // Its owner sees their own request, and not what a colleague asked for.
  expect((await rekko.as('Owen Marsh', (ctx) => readRequestDecision(ctx, second))).similar).toEqual([])
})
