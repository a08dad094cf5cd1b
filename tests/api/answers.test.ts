import { generateKeyPairSync, randomUUID } from 'node:crypto'
import { dkimSign } from 'mailauth/lib/dkim/sign.js'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { addSeconds } from 'date-fns'
import { decide } from '../../server/approval/decide'
import { takeBack } from '../../server/approval/take-back'
import { read, readOne } from '../../server/db/read'
import { outgoingMail } from '../../server/db/schema/mail'
import { mailAnswer } from '../../server/db/schema/decide'
import { inTransaction } from '../../server/db/transaction'
import { answerSecret, insertAnswerKey } from '../../server/decide/answer-store'
import { ANSWER_PREFIX, dressDecision } from '../../server/decide/dress-decision'
import { knowsAnswerAddress, takeAnswer } from '../../server/decide/take-answer'
import { listRemarks } from '../../server/document/reads'
import { lockWaitingMail } from '../../server/mail/reads'
import { REQUISITION } from '../../server/requisition/kind'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { readTrail } from '../../server/trail/read-trail'
import { withdrawRequisition } from '../../server/requisition/withdraw-requisition'
import { sql } from 'drizzle-orm'
import { freeLine, moment, personId, soundDraft } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'
import { ENVELOPE, MAIL_CASES, RELAY, rawOf, type MailCase } from './answer-mails'

const DOMAIN = 'answers.hallamere.example'
const WAYS = { relay: RELAY, resolver: () => Promise.reject(new Error('nothing is looked up where a relay speaks')) }
const INES = 'Ines Adeyemi'
let rekko: UseCases
beforeAll(async () => {
  Object.assign(process.env, { REKKO_ANSWERS_PORT: '2599', REKKO_ANSWERS_DOMAIN: DOMAIN })
  rekko = await openUseCases()
  await rekko.arrange('update budget_balance set budgeted = budgeted + 1000000')
  await byMail({ upTo: null })
})
afterAll(() => rekko.stop())

const byMail = (byMail: object | null) =>
  rekko.arrange('update approval_policy set by_mail = $1', [byMail === null ? null : JSON.stringify(byMail)])

/** A request of Owen Marsh’s that waits for Ines Adeyemi, and the address by which she may answer. */
async function asked(expiresAt = addSeconds(moment(), 3600)): Promise<{ id: string; to: string }> {
  const id = randomUUID()
  await rekko.as('Owen Marsh', (ctx) => createDraft(ctx, id, soundDraft([], { lines: [freeLine('260')] })))
  await rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, id, 1))
  return { id, to: await addressFor(id, expiresAt) }
}
async function addressFor(documentId: string, expiresAt = addSeconds(moment(), 3600), round = 1): Promise<string> {
  const secret = answerSecret('a secret', randomUUID())
  await rekko.as(INES, ({ tx }) =>
    insertAnswerKey(tx, secret, { personId: personId(INES), documentId, round, expiresAt }),
  )
  return `${ANSWER_PREFIX}${secret}`
}
const send = (to: string, c: Omit<MailCase, 'what' | 'becomes'>, more: { messageId?: string; at?: Date } = {}) =>
  takeAnswer(
    rekko.db,
    { to, envelopeFrom: ENVELOPE(c), raw: rawOf(c, `${to}@${DOMAIN}`, more.messageId) },
    () => more.at ?? moment(),
    WAYS,
  )
const find = (id: string) => rekko.as('Owen Marsh', (ctx) => REQUISITION.find(ctx.tx, id))
const stateOf = async (id: string) => (await find(id))?.state
const remarksOf = (id: string) => rekko.as('Owen Marsh', ({ tx }) => listRemarks(tx, id))
const toldOf = async (id: string, name = INES) =>
  (
    await rekko.as(name, ({ tx }) =>
      read(
        tx,
        { told: outgoingMail.told },
        sql`from ${outgoingMail} where ${outgoingMail.aboutId} = ${id} and ${outgoingMail.personId} = ${personId(name)}
        order by ${outgoingMail.createdAt}`,
      ),
    )
  ).map((m) => m.told)

describe('each of these letters', () => {
  test.each(MAIL_CASES)('$what: $becomes', async (c) => {
    const { id, to } = await asked()
    const why = await send(to, c)
    const codes = (await toldOf(id)).map((t) => t.code)
    const remarks = (await remarksOf(id)).map((r) => r.text)
    const decided = c.becomes === 'approved' || c.becomes === 'rejected' || c.becomes === 'sent back'
    expect(why === null).toBe(c.becomes !== 'kept out')
    expect(await stateOf(id)).toBe(decided ? c.becomes : 'in approval')
    expect(codes.includes('mail-not-taken')).toBe(c.becomes === 'told')
    expect(codes.includes('answered-by-mail')).toBe(decided || c.becomes === 'asked')
    expect(remarks).toEqual(
      c.comment !== undefined ? [c.comment] : c.becomes === 'sent back' ? [expect.any(String)] : [],
    )
  })
})

describe('answers in a row', () => {
  test('an address decides once; the same letter brought twice is taken once', async () => {
    const { id, to } = await asked()
    await send(to, { body: 'Approved' }, { messageId: '<once@x>' })
    expect(await send(to, { body: 'Approved' }, { messageId: '<once@x>' })).toBe(null)
    expect((await toldOf(id)).filter((t) => t.code === 'mail-not-taken')).toEqual([])
    await send(to, { body: 'Rejected: after all' })
    expect([await stateOf(id), (await toldOf(id)).at(-1)]).toEqual([
      'approved',
      expect.objectContaining({ code: 'mail-not-taken', why: expect.stringContaining('already') }),
    ])
  })
  test('two letters at the same moment: one decides, the other is told', async () => {
    const { id, to } = await asked()
    await Promise.all([send(to, { body: 'Approved' }), send(to, { body: 'Rejected: no' })])
    const codes = (await toldOf(id)).map((t) => t.code)
    expect(['approved', 'rejected']).toContain(await stateOf(id))
    expect(codes.filter((c) => c === 'answered-by-mail' || c === 'mail-not-taken').sort()).toEqual([
      'answered-by-mail',
      'mail-not-taken',
    ])
  })
  test('a letter and the page at the same moment: one decides', async () => {
    const { id, to } = await asked()
    const version = (await find(id))?.version ?? 0
    const [, page] = await Promise.allSettled([
      send(to, { body: 'Rejected: no' }),
      rekko.as(INES, (ctx) => decide(ctx, REQUISITION, id, version, 'approve', '')),
    ])
    expect(await stateOf(id)).toBe(page.status === 'fulfilled' ? 'approved' : 'rejected')
  })
  test('what was decided on the page is decided', async () => {
    const { id, to } = await asked()
    const version = (await find(id))?.version ?? 0
    await rekko.as(INES, (ctx) => decide(ctx, REQUISITION, id, version, 'approve', ''))
    await send(to, { body: 'Rejected: no' })
    expect([await stateOf(id), (await toldOf(id)).at(-1)?.code]).toEqual(['approved', 'mail-not-taken'])
  })
  test('a question leaves the address open; so does what was not understood', async () => {
    const { id, to } = await asked()
    await send(to, { body: 'Who pays?' })
    await send(to, { body: 'Hm' })
    await send(to, { body: 'Approved' })
    expect([await stateOf(id), (await toldOf(id, 'Owen Marsh')).map((t) => t.code)]).toEqual([
      'approved',
      expect.arrayContaining(['asked']),
    ])
  })
  test('it is taken back within its seconds as on the page, and the address decides nothing more', async () => {
    const { id, to } = await asked()
    await send(to, { body: 'Approved' })
    const made = await rekko.as(INES, ({ tx }) =>
      readOne(
        tx,
        { id: mailAnswer.decisionId },
        sql`from ${mailAnswer} where ${mailAnswer.outcome} = 'decided'
        order by ${mailAnswer.at} desc limit 1`,
      ),
    )
    await rekko.as(INES, (ctx) => takeBack(ctx, REQUISITION, id, made?.id ?? ''))
    expect(await stateOf(id)).toBe('in approval')
    await send(to, { body: 'Approved' })
    expect(await stateOf(id)).toBe('in approval')
  })
  test('too late', async () => {
    const { id, to } = await asked(addSeconds(moment(), -1))
    await send(to, { body: 'Approved' })
    expect([await stateOf(id), (await toldOf(id)).at(-1)]).toEqual([
      'in approval',
      expect.objectContaining({ why: expect.stringContaining('too old') }),
    ])
  })
  test('withdrawn, and sent again: the earlier mail decides nothing', async () => {
    const { id, to } = await asked()
    const version = (await find(id))?.version ?? 0
    await rekko.as('Owen Marsh', (ctx) => withdrawRequisition(ctx, id, version))
    await send(to, { body: 'Approved' })
    expect([await stateOf(id), (await toldOf(id)).at(-1)?.code]).toEqual(['withdrawn', 'mail-not-taken'])
    await rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, id, version + 1))
    await send(to, { body: 'Approved' })
    expect([await stateOf(id), (await toldOf(id)).at(-1)]).toEqual([
      'in approval',
      expect.objectContaining({ why: expect.stringContaining('sent again') }),
    ])
    await send(await addressFor(id, undefined, 2), { body: 'Approved' })
    expect(await stateOf(id)).toBe('approved')
  })
  test('after five that change nothing nobody is told any more, and nothing else changes', async () => {
    const { id, to } = await asked()
    for (let i = 0; i < 8; i += 1) await send(to, { body: 'Thank you for your mail.' })
    expect((await toldOf(id)).filter((t) => t.code === 'mail-not-taken')).toHaveLength(5)
    await send(to, { body: 'Approved' })
    expect(await stateOf(id)).toBe('approved')
  })
  test('the policy says which: up to an amount, with it; another version meanwhile counts', async () => {
    const { id, to } = await asked()
    await byMail({ upTo: { amount: '259.99', currency: 'EUR' } })
    await send(to, { body: 'Approved' })
    expect([await stateOf(id), (await toldOf(id)).at(-1)]).toEqual([
      'in approval',
      expect.objectContaining({ why: expect.stringContaining('policy') }),
    ])
    await byMail({ upTo: { amount: '260', currency: 'EUR' } })
    await send(to, { body: 'Approved' })
    expect(await stateOf(id)).toBe('approved')
    await byMail({ upTo: null })
  })
  test('who is asked for a second factor decides in Rekko', async () => {
    const { id, to } = await asked()
    await rekko.arrange("update organisation set second_factor_for = 'everybody'")
    await send(to, { body: 'Approved' })
    await rekko.arrange("update organisation set second_factor_for = 'nobody'")
    expect(await stateOf(id)).toBe('in approval')
  })
  test('who left decides nothing', async () => {
    const { id, to } = await asked()
    await rekko.arrange("update person set left_on = '2026-01-01' where id = $1", [personId(INES)])
    const why = await send(to, { body: 'Approved' })
    await rekko.arrange('update person set left_on = null where id = $1', [personId(INES)])
    expect([await stateOf(id), why]).toEqual(['in approval', expect.stringContaining('Only the person')])
  })
  test('an address that was never given out is none', async () => {
    const { to } = await asked()
    expect(await knowsAnswerAddress(rekko.db, to)).toBe(true)
    expect(await knowsAnswerAddress(rekko.db, `${to}0`)).toBe(false)
    expect(await knowsAnswerAddress(rekko.db, 'postmaster')).toBe(false)
    expect(await send('decide-nothing', { body: 'Approved' })).toMatch(/Only the person/)
  })
  test('the trail says that it was by mail', async () => {
    const { id, to } = await asked()
    await send(to, { body: 'Approved' })
    const { route } = await rekko.as('Owen Marsh', (ctx) => readTrail(ctx, id))
    expect(route.map((s) => [s.name, s.state, s.byMail])).toEqual([[INES, 'done', true]])
  })
})

describe('without a relay, by the signature of the domain (DKIM, RFC 6376)', () => {
  const { privateKey, publicKey } = generateKeyPairSync('rsa', { modulusLength: 2048 })
  const record = `v=DKIM1; k=rsa; p=${publicKey.export({ type: 'spki', format: 'der' }).toString('base64')}`
  const looked = (found: string) => (name: string, type: string) =>
    type === 'TXT' && name === found
      ? Promise.resolve([[record]])
      : Promise.reject(Object.assign(new Error('none'), { code: 'ENOTFOUND' }))
  async function signedBy(signingDomain: string, to: string, change = (raw: string) => raw, lengthTag = {}) {
    const raw = rawOf({ body: 'Approved', results: null }, `${to}@${DOMAIN}`)
    const { signatures } = await dkimSign(raw, {
      canonicalization: 'relaxed/relaxed',
      signatureData: [
        {
          signingDomain,
          selector: 'a',
          privateKey: privateKey.export({ type: 'pkcs8', format: 'pem' }).toString(),
          ...lengthTag,
        },
      ],
    })
    return Buffer.from(change(signatures + raw.toString()))
  }
  test.each([
    ['hers', 'hallamere.example', (raw: string) => raw, {}, 'approved'],
    ['another domain', 'elsewhere.example', (raw: string) => raw, {}, 'in approval'],
    [
      'changed on its way',
      'hallamere.example',
      (raw: string) => raw.replace('Approved', 'Rejected: no'),
      {},
      'in approval',
    ],
    [
      'signed in part, with more below',
      'hallamere.example',
      (raw: string) => `${raw}\r\nmore`,
      { maxBodyLength: 8 },
      'in approval',
    ],
  ] as const)('%s', async (_, domain, change, tag, state) => {
    const { id, to } = await asked()
    const raw = await signedBy(domain, to, change, tag)
    await takeAnswer(rekko.db, { to, envelopeFrom: ENVELOPE({}), raw }, moment, {
      relay: null,
      resolver: looked(`a._domainkey.${domain}`),
    })
    expect(await stateOf(id)).toBe(state)
  })
})

describe('the mail that asks', () => {
  const mailOf = (id: string, name: string) =>
    inTransaction(rekko.db, async (tx) => {
      const later = addSeconds(moment(), 60)
      const row = await readOne(
        tx,
        { id: outgoingMail.id },
        sql`from ${outgoingMail} where ${outgoingMail.aboutId} = ${id} and ${outgoingMail.personId} = ${personId(name)}
          order by ${outgoingMail.createdAt} limit 1`,
      )
      const mail = await lockWaitingMail(tx, row?.id ?? '', later)
      return mail === null ? null : dressDecision(tx, mail, later)
    })
  test('holds the request, how to answer, and the request as a PDF; its text and its page say the same', async () => {
    const { id } = await asked()
    const mail = (await mailOf(id, INES)) ?? expect.fail('nothing was made of it')
    const number = (await find(id))?.number ?? ''
    for (const said of [number, 'Owen Marsh asks for EUR 260.00', 'never bought', 'approved', 'rejected: why'])
      for (const form of [mail.text, mail.html]) expect(form).toContain(said)
    expect(mail.replyTo).toMatch(new RegExp(`^decide-[0-9a-f]{40}@${DOMAIN}$`))
    expect(mail.files.map((f) => [f.mime, f.bytes.subarray(0, 5).toString()])).toEqual([['application/pdf', '%PDF-']])
    // Answered, it decides.
    await send(mail.replyTo?.split('@')[0] ?? '', { body: `Approved\n\n${mail.text.replace(/^/gm, '> ')}` })
    expect(await stateOf(id)).toBe('approved')
    expect(await mailOf(id, INES)).toBe(null)
  })
  test('is answered by nobody where the policy has it decided in Rekko', async () => {
    const { id } = await asked()
    await byMail(null)
    const mail = await mailOf(id, INES)
    await byMail({ upTo: null })
    expect([mail?.replyTo, mail?.text.includes('above this line')]).toEqual([null, false])
  })
  test('what somebody wrote is text in it, and never a part of the page', async () => {
    const id = randomUUID()
    const line = { ...freeLine('260'), description: '<img src=x onerror=alert(1)>' }
    await rekko.as('Owen Marsh', (ctx) => createDraft(ctx, id, soundDraft([], { lines: [line] })))
    await rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, id, 1))
    expect((await mailOf(id, INES))?.html).toContain('&lt;img src=x')
  })
})
