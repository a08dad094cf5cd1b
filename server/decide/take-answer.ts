import { promises as dns } from 'node:dns'
import { mayAnswerByMail } from '#core/approval/policy-form'
import { readAnswer, type Answer } from '#core/approval/answer'
import { dayOf } from '#core/base/day'
import { moneyOf } from '#core/base/money'
import { sayUnanswered, type AnswerRefusal } from '#shared/words/answer'
import { askQuestion } from '../approval/ask-question'
import { decide } from '../approval/decide'
import { decidePath, type Decidable } from '../approval/decidable'
import { findRoute, requireVersion } from '../approval/reads'
import type { Context } from '../context'
import type { Db, Tx } from '../db/client'
import { inTransaction } from '../db/transaction'
import type { DocumentHead } from '../document/kind'
import { Problem } from '../http/problem'
import { DECIDABLES } from '../kinds'
import { isProven, type ProofWays } from '../mail/prove-sender'
import { readLetter, type ReadLetter } from '../mail/read-letter'
import type { Arrived } from '../mail/take-mail'
import type { Actor } from '../people/actor'
import { findActor, isFactorAsked } from '../people/actor-reads'
import { findAddresses } from '../people/person-reads'
import { tellPerson } from '../people/tell-person'
import { requireOrganisation } from '../settings/reads'
import { findAnswered, insertAnswer, isAnswerKey, lockAnswerKey, useAnswerKey, type AnswerKey } from './answer-store'
import { ANSWER_PREFIX } from './dress-decision'

/** So many answers that change nothing are told kindly; two machines that answer each other come to an end. */
const MOST_KIND = 5
const DID = { approved: 'approve', rejected: 'reject', 'sent back': 'sendBack' } as const
/** Said to whoever delivers a letter that is not taken: its sender hears it from their own mail server. */
const NOT_THEIRS = 'Only the person whom Rekko asked can answer, from the address that the mail went to.'

const secretOf = (to: string): string | null => (to.startsWith(ANSWER_PREFIX) ? to.slice(ANSWER_PREFIX.length) : null)

/** Whether an address is one that was ever given out. */
export async function knowsAnswerAddress(db: Db, to: string): Promise<boolean> {
  const secret = secretOf(to)
  return secret !== null && (await inTransaction(db, (tx) => isAnswerKey(tx, secret)))
}

/** By which proof a sender is believed, as the server is set up; names are looked up in the DNS. */
export const proofWays = (relay: string | null): ProofWays => ({
  relay,
  resolver: (name, type) => dns.resolve(name, type),
})

/**
 * Takes an answer to a mail that asked for a decision: decides, asks the question, or changes nothing and says kindly
 * why. A sentence comes back where it is not taken at all: nothing is mailed to whoever is not proven to be the one who
 * was asked. The same letter brought twice is taken once.
 */
export async function takeAnswer(db: Db, arrived: Arrived, clock: () => Date, ways: ProofWays): Promise<string | null> {
  const secret = secretOf(arrived.to)
  if (secret === null) return NOT_THEIRS
  const letter = await readLetter(arrived.raw)
  const proven = await isProven(letter, arrived.raw, ways)
  const taken: Taken = { secret, letter, envelopeFrom: arrived.envelopeFrom, proven }
  try {
    return await inTransaction(db, (tx) => take(tx, taken, clock(), null))
  } catch (error) {
    // What cannot be done is undone as a whole, and told.
    if (!(error instanceof Problem)) throw error
    return inTransaction(db, (tx) => take(tx, taken, clock(), error.detail))
  }
}

interface Taken {
  readonly secret: string
  readonly letter: ReadLetter
  readonly envelopeFrom: string
  readonly proven: boolean
}

/** Where `refusedBy` says why what it asks for could not be done, that is told and nothing tried again. */
async function take(tx: Tx, taken: Taken, now: Date, refusedBy: string | null): Promise<string | null> {
  const { secret, letter, envelopeFrom, proven } = taken
  const key = await lockAnswerKey(tx, secret)
  const actor = key === null ? null : await findActor(tx, key.personId, now)
  if (key === null || actor === null) return NOT_THEIRS
  const ctx: Context = { tx, now, actor }
  const messageId = letter.messageId === '' ? `no id ${now.toISOString()}` : letter.messageId.slice(0, 500)
  const { before, idle } = await findAnswered(tx, key, messageId)
  if (before) return null
  const keep = (outcome: string, decisionId: string | null = null) =>
    insertAnswer(tx, { keyHash: key.hash, messageId, at: now, outcome, decisionId })
  if (letter.automatic || envelopeFrom === '') {
    await keep('automatic')
    return null
  }
  const address = (await findAddresses(tx, [actor.id])).get(actor.id)?.email.toLowerCase()
  if (!proven || letter.from !== address || envelopeFrom !== address) return NOT_THEIRS
  const found = await findAsked(ctx, key)
  if (found === null) return NOT_THEIRS
  const answer = readAnswer(letter.text, actor.name)
  const why = refusedBy ?? (await refusalOf(ctx, key, answer))
  if (why !== null) {
    await keep('not taken')
    if (idle < MOST_KIND) await tellAnswerer(ctx, found.document, { code: 'mail-not-taken', why })
    return null
  }
  const did = await carryOut(withMail(ctx), found, answer)
  if (did.decisionId !== null) await useAnswerKey(tx, key, now)
  await keep(did.decisionId === null ? 'asked' : 'decided', did.decisionId)
  await tellAnswerer(ctx, found.document, { code: 'answered-by-mail', did: did.what })
  return null
}

const withMail = (ctx: Context): Context => ({ ...ctx, actor: { ...ctx.actor, byMail: true } satisfies Actor })

interface Asked {
  readonly kind: Decidable
  readonly document: DocumentHead
}

async function findAsked({ tx }: Context, key: AnswerKey): Promise<Asked | null> {
  for (const kind of Object.values(DECIDABLES)) {
    const document = await kind?.find(tx, key.documentId, true)
    if (kind !== undefined && document != null) return { kind, document }
  }
  return null
}

/** Why an answer changes nothing, whatever it decides on; null where it may. */
async function refusalOf(ctx: Context, key: AnswerKey, answer: Answer): Promise<string | null> {
  const { tx, now, actor } = ctx
  const refuse = (why: AnswerRefusal) => sayUnanswered(why)
  if (answer.says === 'unclear') return refuse(answer.why)
  if (key.expiresAt.getTime() < now.getTime()) return refuse('too old')
  const route = await findRoute(tx, key.documentId)
  if (route === null || route.round !== key.round) return refuse('sent again')
  if (answer.says === 'question') return null
  if (key.usedAt !== null) return refuse('answered')
  const { timeZone } = await requireOrganisation(tx)
  const { form } = await requireVersion(tx, now, dayOf(now, timeZone))
  if (!mayAnswerByMail(form, moneyOf(route.amount, route.currency))) return refuse('not by mail')
  return (await isFactorAsked(tx, actor.id)) ? refuse('second factor') : null
}

async function carryOut(
  ctx: Context,
  { kind, document }: Asked,
  answer: Answer,
): Promise<{ what: 'approved' | 'rejected' | 'sent back' | 'asked'; decisionId: string | null }> {
  if (answer.says === 'unclear') throw new Error('nothing is done by what is not understood')
  if (answer.says === 'question') {
    await askQuestion(ctx, kind, document.id, answer.text, null)
    return { what: 'asked', decisionId: null }
  }
  const { decisionId } = await decide(ctx, kind, document.id, document.version, DID[answer.says], answer.comment)
  return { what: answer.says, decisionId }
}

type Said =
  | { readonly code: 'answered-by-mail'; readonly did: 'approved' | 'rejected' | 'sent back' | 'asked' }
  | { readonly code: 'mail-not-taken'; readonly why: string }

/** Told although they did it themselves: it may have been another in their name. */
async function tellAnswerer(ctx: Context, { id, kind, number, title }: DocumentHead, said: Said): Promise<void> {
  await tellPerson(
    ctx,
    ctx.actor.id,
    { kind, id },
    { ...said, number, title },
    { path: decidePath(id), ownDoing: true },
  )
}
