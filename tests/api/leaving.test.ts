import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { listOpenActors } from '../../server/approval/reads'
import { readOne } from '../../server/db/read'
import { person } from '../../server/db/schema/people'
import { findDraft } from '../../server/decide/policy-reads'
import { listAbsences } from '../../server/people/absence-reads'
import { setAway } from '../../server/people/set-away'
import { letLeave, type Successors } from '../../server/personal/leave'
import { readPersonPage } from '../../server/personal/person-page'
import { REQUISITION } from '../../server/requisition/kind'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { freeLine, personId, soundDraft, TODAY } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

// Ines Adeyemi is Owen Marsh’s manager; Harriet Voss is an administrator and a buyer, Leonie Farrow a buyer.
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('update budget_balance set budgeted = budgeted + 100000')
  await rekko.arrange('update approval_policy set fallback_id = $1', [personId('Ines Adeyemi')])
})
afterAll(() => rekko.stop())

const INES = personId('Ines Adeyemi')
async function raise(by: string, price = '260'): Promise<string> {
  const id = crypto.randomUUID()
  await rekko.as(by, (ctx) => createDraft(ctx, id, soundDraft([], { lines: [freeLine(price)] })))
  await rekko.as(by, (ctx) => sendRequisition(ctx, id, 1))
  return id
}
const open = async (id: string) =>
  (await rekko.as('Harriet Voss', (ctx) => listOpenActors(ctx.tx, id))).map((p) => p.name)
const ownerOf = async (id: string) =>
  (await rekko.as('Harriet Voss', (ctx) => REQUISITION.find(ctx.tx, id)))?.ownerId ?? ''
const page = () => rekko.as('Harriet Voss', (ctx) => readPersonPage(ctx, INES))
const leave = (s: Partial<Successors>, by = 'Harriet Voss', whose = INES) =>
  rekko.as(by, (ctx) =>
    letLeave(ctx, whose, {
      lastDay: TODAY,
      requestsTo: null,
      ordersTo: null,
      decisionsTo: null,
      reportsTo: null,
      ...s,
    }),
  )
const managerOf = async (name: string) =>
  (
    await rekko.as('Harriet Voss', ({ tx }) =>
      readOne(tx, { managerId: person.managerId }, sql`from ${person} where ${person.id} = ${personId(name)}`),
    )
  )?.managerId

describe('somebody leaves', () => {
  test('what cannot be is refused, and nothing is moved', async () => {
    const waits = await raise('Owen Marsh')
    await expect(leave({ decisionsTo: INES })).rejects.toThrow(/who stays/)
    await expect(leave({ decisionsTo: personId('Kaveh Dorani'), ordersTo: personId('Owen Marsh') })).rejects.toThrow(
      /no buyer/,
    )
    await expect(leave({}, 'Harriet Voss', personId('Harriet Voss'))).rejects.toThrow(/Somebody else/)
    await expect(leave({ decisionsTo: personId('Harriet Voss') })).rejects.toThrow(/to themselves/)
    expect([await open(waits), (await page()).leftOn]).toEqual([['Ines Adeyemi'], null])
  })
  test('all that is theirs goes over in one action; done again, nothing is left to move', async () => {
    const own = await raise('Ines Adeyemi', '3000')
    const waits = await raise('Owen Marsh')
    await rekko.as('Harriet Voss', (ctx) =>
      setAway(ctx, {
        personId: personId('Tomas Brandt'),
        from: '2027-03-01',
        until: '2027-03-05',
        substituteId: INES,
        note: '',
      }),
    )
    const before = await page()
    expect([before.requests > 0, before.waiting > 0, before.standsIn, before.inPolicy]).toEqual([
      true,
      true,
      ['Tomas Brandt'],
      true,
    ])
    const to = {
      requestsTo: personId('Priya Lindqvist'),
      decisionsTo: personId('Kaveh Dorani'),
      reportsTo: personId('Tomas Brandt'),
    }
    const left = await leave(to)
    expect(left).toMatchObject({
      requests: before.requests + before.drafts,
      decisions: before.waiting,
      standIns: 1,
      kept: 0,
      policy: 'drafted',
    })
    expect(await ownerOf(own)).toBe(personId('Priya Lindqvist'))
    expect(await open(waits)).toEqual(['Kaveh Dorani'])
    expect(await managerOf('Owen Marsh')).toBe(personId('Tomas Brandt'))
    const [absence] = await rekko.as('Harriet Voss', (ctx) =>
      listAbsences(ctx.tx, '2027-03-01', personId('Tomas Brandt')),
    )
    expect(absence?.substitute).toBe('Kaveh Dorani')
    const draft = await rekko.as('Harriet Voss', (ctx) => findDraft(ctx.tx))
    expect([draft?.form.fallbackId, draft?.form.name]).toEqual([
      personId('Kaveh Dorani'),
      'Kaveh Dorani in the places of somebody who leaves',
    ])
    const after = await page()
    expect([after.leftOn, after.requests, after.waiting, after.reports, after.standsIn, after.inPolicy]).toEqual([
      TODAY,
      0,
      0,
      [],
      [],
      false,
    ])
    expect(await leave(to)).toMatchObject({ requests: 0, decisions: 0, standIns: 0, reports: 0, policy: 'none' })
  })
  test('what the receiver may not decide stays, and is routed again once they are gone', async () => {
    const leavers = personId('Tomas Brandt')
    // Owen Marsh has Tomas Brandt as his manager by now.
    const id = await raise('Owen Marsh', '2000')
    expect(await open(id)).toEqual(['Tomas Brandt'])
    const left = await leave({ decisionsTo: personId('Owen Marsh') }, 'Harriet Voss', leavers)
    expect(left.kept).toBeGreaterThanOrEqual(1)
    expect(await open(id)).toEqual(['Tomas Brandt'])
  })
})
