import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { money } from '#core/base/money'
import type { PolicyForm } from '#core/approval/policy-form'
import { addDays } from '#core/base/day'
import type { Context } from '../../server/context'
import { decide } from '../../server/approval/decide'
import { routeAgain } from '../../server/approval/route-again'
import { requireVersion } from '../../server/approval/reads'
import { keepDraft, throwDraftAway } from '../../server/decide/policy-draft'
import { askForDraft, callVersionOff, confirmDraft, giveDraftBack } from '../../server/decide/put-policy-in-force'
import { readApprovalPolicy, readPolicyVersion } from '../../server/decide/read-policy'
import { DECIDABLES } from '../../server/kinds'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { freeLine, personId, soundDraft, TODAY } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

// Harriet Voss is the only administrator, so that finance confirms what she writes.
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
})
afterAll(() => rekko.stop())

const [HARRIET, GRETA, LEONIE] = ['Harriet Voss', 'Greta Molin', 'Leonie Farrow']
const REQUISITIONS = DECIDABLES.requisition ?? expect.fail('requisitions are decided on')
const view = () => rekko.as(HARRIET, readApprovalPolicy)
const versionOf = async () => (await view()).draft?.version ?? 0
const inForce = () => rekko.as(HARRIET, (ctx) => requireVersion(ctx.tx, ctx.now, TODAY))
const write = async (form: PolicyForm, by = HARRIET, version?: number) => {
  const at = version ?? (await versionOf())
  return rekko.as(by, (ctx) => keepDraft(ctx, at, form))
}
const at = async <T>(by: string, work: (ctx: Context, version: number) => Promise<T>) => {
  const version = await versionOf()
  return rekko.as(by, (ctx) => work(ctx, version))
}
const ask = (by = HARRIET, from: Parameters<typeof askForDraft>[2] = null) => at(by, (c, v) => askForDraft(c, v, from))
const confirm = (by = GRETA) => at(by, confirmDraft)
/** The policy in force, with one thing that tells the version. */
const changed = async (name: string, change: Partial<PolicyForm> = {}): Promise<PolicyForm> => ({
  ...(await inForce()).form,
  name,
  ...change,
})
const raise = async () => {
  const id = crypto.randomUUID()
  await rekko.as('Owen Marsh', (ctx) => createDraft(ctx, id, soundDraft([], { lines: [freeLine('600')] })))
  await rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, id, 1))
  return id
}
const decisionsOf = async (number: number) =>
  (await view()).versions.find((v) => v.number === number)?.decisions ?? expect.fail(`no version ${number}`)

test('while nothing was ever sent, whoever sets up puts it in force alone', async () => {
  expect((await view()).draft).toBeNull()
  expect(await write(await changed('as it begins', { ownLimitDays: 3 }), HARRIET, 0)).toEqual({ version: 1 })
  expect((await inForce()).form.ownLimitDays).toBeNull()
  expect((await ask()).number).toBe(2)
  expect((await inForce()).form).toMatchObject({ name: 'as it begins', ownLimitDays: 3 })
  expect((await view()).draft?.state).toBe('none')
})

describe('once requests are sent', () => {
  let first = ''
  beforeAll(async () => {
    first = await raise()
  })

  test('a second person confirms, and only what they saw; decisions tell the version they followed', async () => {
    await rekko.as('Ines Adeyemi', (ctx) => decide(ctx, REQUISITIONS, first, 2, 'approve', ''))
    expect(await decisionsOf(2)).toBe(1)
    const second = await raise()
    const trustee = { by: 'person', personId: personId('Aldous Penhale') } as const
    const { rules } = (await inForce()).form
    const more = { id: crypto.randomUUID(), name: 'the board looks', conditions: [], sparesManagers: false }
    const step = { rank: 1, who: trustee, mustCover: false }
    await write(await changed('the board looks at all', { rules: [...rules, { ...more, steps: [step] }] }))
    expect((await ask()).number).toBeNull()
    expect((await inForce()).number).toBe(2)
    await expect(confirm(HARRIET)).rejects.toThrow(/Whoever wrote in the draft does not confirm it/)
    await expect(confirm('Owen Marsh')).rejects.toThrow(/An administrator confirms this/)
    await expect(write(await changed('another'))).rejects.toThrow(/take it back to write in it/)
    const seen = await versionOf()
    await expect(rekko.as(GRETA, (ctx) => confirmDraft(ctx, seen - 1))).rejects.toThrow(/somebody changed the draft/)
    const both = await Promise.allSettled([confirm(), confirm()])
    expect(both.map((b) => b.status).sort()).toEqual(['fulfilled', 'rejected'])
    expect((await inForce()).number).toBe(3)
    // Rules are known by what they were known by: those that stayed are the same.
    expect((await inForce()).form.rules.slice(0, -1).map((r) => r.id)).toEqual(rules.map((r) => r.id))
    // What is open is routed by it.
    await rekko.as(HARRIET, async (ctx) => {
      const document = (await REQUISITIONS.find(ctx.tx, second, true)) ?? expect.fail('it is there')
      expect(await routeAgain(ctx, REQUISITIONS, document)).toBe(true)
    })
    await expect(
      rekko.as('Ines Adeyemi', (ctx) => decide(ctx, REQUISITIONS, second, 3, 'approve', '')),
    ).rejects.toThrow()
    const version = await rekko.as(
      'Aldous Penhale',
      async (ctx) => (await REQUISITIONS.find(ctx.tx, second, false))?.version,
    )
    await rekko.as('Aldous Penhale', (ctx) => decide(ctx, REQUISITIONS, second, version ?? 0, 'approve', ''))
    expect([await decisionsOf(2), await decisionsOf(3)]).toEqual([1, 1])
  })

  test('what was given or taken back is written on; a draft that is thrown away comes back for nobody', async () => {
    await write(await changed('given back'))
    await ask()
    await expect(at(GRETA, (c, v) => giveDraftBack(c, v, ' '))).rejects.toThrow(/Say what is to be changed/)
    await at(GRETA, (c, v) => giveDraftBack(c, v, 'name whom it spares'))
    expect((await view()).draft).toMatchObject({ state: 'written', returned: 'Greta Molin: name whom it spares' })
    await write(await changed('once more'))
    await ask()
    await at(HARRIET, (c, v) => giveDraftBack(c, v, ''))
    const stale = await versionOf()
    await at(HARRIET, throwDraftAway)
    expect((await view()).draft).toMatchObject({ state: 'none' })
    await expect(write(await changed('late'), HARRIET, stale)).rejects.toThrow(/wrote in the draft/)
    await expect(ask()).rejects.toThrow(/There is no draft any more/)
    await write(await changed('anew'))
    expect((await view()).draft).toMatchObject({ state: 'written', returned: '' })
    await at(HARRIET, throwDraftAway)
  })

  test('what is wrong is refused with every reason, and what says nothing new is refused', async () => {
    await write({ ...(await inForce()).form, ownLimitDays: 500, name: ' ', fallbackId: personId('Jonas Abara') })
    await expect(ask()).rejects.toThrow(/Say in a few words/)
    await write((await inForce()).form)
    await expect(ask()).rejects.toThrow(/says what holds already/)
    await at(HARRIET, throwDraftAway)
  })

  test('a version holds from its moment on; until then it can be called off, and then no more', async () => {
    const before = (await inForce()).number
    await write(await changed('from next month', { ownLimitDays: 30 }))
    await expect(ask(HARRIET, { day: addDays(TODAY, -1), time: '09:00' })).rejects.toThrow(/has passed/)
    await expect(ask(HARRIET, { day: addDays(TODAY, 500), time: '09:00' })).rejects.toThrow(/within the next 400 days/)
    await ask(HARRIET, { day: addDays(TODAY, 30), time: '09:30' })
    const { number } = await confirm()
    expect((await inForce()).number).toBe(before)
    const later = new Date(`${addDays(TODAY, 31)}T12:00:00Z`)
    const then = await rekko.as(HARRIET, (ctx) => requireVersion(ctx.tx, later, addDays(TODAY, 31)))
    expect([then.number, then.form.ownLimitDays]).toEqual([number, 30])
    // A draft that is begun now begins from what will hold.
    expect((await view()).last.number).toBe(number)
    await rekko.as(HARRIET, (ctx) => callVersionOff(ctx, number ?? 0))
    await expect(rekko.as(HARRIET, (ctx) => callVersionOff(ctx, number ?? 0))).rejects.toThrow(/called off/)
    await expect(rekko.as(HARRIET, (ctx) => callVersionOff(ctx, before))).rejects.toThrow(/in force already/)
    const back = await rekko.as(HARRIET, (ctx) => requireVersion(ctx.tx, later, addDays(TODAY, 31)))
    expect(back.number).toBe(before)
    // It stays to be read, and its number is taken.
    expect((await rekko.as(HARRIET, (ctx) => readPolicyVersion(ctx, number ?? 0))).form.name).toBe('from next month')
    await write(await changed('the next'))
    await ask()
    expect((await confirm()).number).toBe((number ?? 0) + 1)
  })

  test('another administrator confirms who did not write in it; where all wrote, finance does', async () => {
    await rekko.arrange(`insert into role_grant (person_id, role) values ($1, 'administrator')`, [personId(LEONIE)])
    await write(await changed('by one'))
    await ask()
    await expect(confirm(GRETA)).rejects.toThrow(/An administrator confirms this/)
    await confirm(LEONIE)
    await write(await changed('by both'))
    await write(await changed('by both, twice'), LEONIE)
    await ask()
    await expect(confirm(LEONIE)).rejects.toThrow(/Whoever wrote in the draft/)
    expect((await confirm(GRETA)).number).not.toBeNull()
  })

  test('of two who begin or write at the same moment one is told', async () => {
    const [a, b] = [await changed('one'), await changed('other')]
    const version = await versionOf()
    const both = await Promise.allSettled([write(a, HARRIET, version), write(b, LEONIE, version)])
    expect(both.map((x) => x.status).sort()).toEqual(['fulfilled', 'rejected'])
    await at(HARRIET, throwDraftAway)
  })

  test('amounts stay exact, and an amount is not cut', async () => {
    const { rules } = (await inForce()).form
    const from = money('12345678901.05 EUR')
    const added = { id: crypto.randomUUID(), name: '', sparesManagers: false, steps: [] }
    await write(await changed('large', { rules: [...rules, { ...added, conditions: [{ on: 'amount', from }] }] }))
    await ask()
    await confirm(LEONIE)
    expect((await inForce()).form.rules.at(-1)?.conditions).toEqual([{ on: 'amount', from }])
  })
})
