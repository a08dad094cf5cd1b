import { createHash, randomInt } from 'node:crypto'
import type { H3Event } from 'h3'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { environment } from '../environment'
import { addressOf } from '../http/address-of'
import { invalid, Problem, refused } from '../http/problem'
import type { Tx } from '../db/client'
import { isFactorAsked, lockOwnAccount } from '../people/actor-reads'
import {
  beginFactor,
  confirmFactor,
  deleteFactor,
  findFactor,
  replaceCodes,
  takeCode,
  takeStep,
} from '../people/factor-store'
import { seal, unseal } from '../people/seal'
import { tellPerson } from '../people/tell-person'
import { countTry, forgetTries } from './count-tries'
import { addressOfSecret, newSecret, stepOfCode } from './time-code'

const PURPOSE = 'second factor'
const CODES = 10
/** Letters and digits that nobody takes for each other. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789'

const hashOf = (personId: string, code: string) =>
  createHash('sha256')
    .update(`${personId} ${code.toLowerCase().replace(/[^a-z0-9]/g, '')}`)
    .digest('hex')
function newCode(): string {
  const letters = Array.from({ length: 12 }, () => LETTERS[randomInt(LETTERS.length)] ?? '')
  return [0, 4, 8].map((at) => letters.slice(at, at + 4).join('')).join('-')
}

/** Whether signing in asks for a code, whether it has to, and how many recovery codes are left. */
export async function readFactor({ tx, actor }: Context): Promise<{ holds: boolean; asked: boolean; codes: number }> {
  const found = await findFactor(tx, actor.id)
  const holds = found?.isConfirmed === true
  return { holds, asked: await isFactorAsked(tx, actor.id), codes: holds ? found.codes : 0 }
}

/** Begins a second factor; it holds once a code of it was written. */
export async function beginSecondFactor({ tx, actor }: Context): Promise<{ secret: string; address: string }> {
  const own = await lockOwnAccount(tx, actor.id)
  const secret = newSecret()
  if (!(await beginFactor(tx, actor.id, seal(PURPOSE, secret))))
    throw refused(['You have a second factor already; take it away first.'])
  return { secret, address: addressOfSecret(secret, own?.email ?? '', own?.organisation ?? 'Rekko') }
}

/** Under what somebody's codes are counted, wherever they are written. */
export const codeKeyOf = (personId: string) => `code of ${personId}`
const keyOf = ({ actor }: Context) => codeKeyOf(actor.id)
export const countCode = (ctx: Context, event: H3Event): Promise<void> => countTry(ctx, event, keyOf(ctx))

/** Confirms it by a code; answers with recovery codes that are told this once. */
export async function confirmSecondFactor(ctx: Context, event: H3Event, code: string): Promise<{ codes: string[] }> {
  const { tx, actor, now } = ctx
  const found = await findFactor(tx, actor.id)
  if (found === null) throw refused(['Begin a second factor first.'])
  if (found.isConfirmed) throw refused(['You have a second factor already; take it away first.'])
  if (!(await takesTimeCode(tx, actor.id, code, now))) throw wrongCode()
  await forgetTries(ctx, event, keyOf(ctx))
  await confirmFactor(tx, actor.id, now)
  await noteChange(ctx, event, true)
  return writeCodes(ctx)
}

/** Makes recovery codes anew, by a code of the factor. */
export async function renewCodes(ctx: Context, event: H3Event, code: string): Promise<{ codes: string[] }> {
  await requireCode(ctx, code)
  await forgetTries(ctx, event, keyOf(ctx))
  await appendEvent(ctx, { type: 'recovery codes renewed', subjectKind: 'session', subjectId: ctx.actor.id })
  return writeCodes(ctx)
}

/** Takes the second factor away, by a code of it or a recovery code. */
export async function endSecondFactor(ctx: Context, event: H3Event, code: string): Promise<void> {
  await requireCode(ctx, code)
  await forgetTries(ctx, event, keyOf(ctx))
  await deleteFactor(ctx.tx, ctx.actor.id)
  await noteChange(ctx, event, false)
}

async function writeCodes({ tx, actor }: Context): Promise<{ codes: string[] }> {
  const codes = Array.from({ length: CODES }, newCode)
  await replaceCodes(
    tx,
    actor.id,
    codes.map((c) => hashOf(actor.id, c)),
  )
  return { codes }
}

async function requireCode({ tx, actor, now }: Context, code: string): Promise<void> {
  const found = await findFactor(tx, actor.id)
  if (found?.isConfirmed !== true) throw refused(['You have no second factor.'])
  if (!(await opens(tx, actor.id, code, now))) throw wrongCode()
}

const wrongCode = () =>
  invalid('This code does not fit, or was used already; wait for the next one.', [
    { field: 'code', message: 'does not fit' },
  ])

async function takesTimeCode(tx: Tx, personId: string, code: string, now: Date): Promise<boolean> {
  const found = await findFactor(tx, personId)
  const secret = found === null ? null : unseal(PURPOSE, found.sealed)
  const step = secret === null ? null : stepOfCode(secret, code, now)
  return step !== null && takeStep(tx, personId, step)
}

/** Whether a code opens: one of the factor, once, or a recovery code, once. */
const opens = async (tx: Tx, personId: string, code: string, now: Date): Promise<boolean> =>
  (await takesTimeCode(tx, personId, code, now)) || takeCode(tx, personId, hashOf(personId, code))

/**
 * Asks for a code of whoever has a second factor; their failures before make them wait. This try is counted by whoever
 * notes that it was refused: what is counted here goes with the refusal.
 */
export async function requireFactor(ctx: Context, event: H3Event, personId: string, code: string): Promise<void> {
  const found = await findFactor(ctx.tx, personId)
  if (found?.isConfirmed !== true) return
  if (code.trim() === '') throw new Problem(401, 'needs-code', 'Now the code of your second factor.')
  await countTry(ctx, event, codeKeyOf(personId))
  if (!(await opens(ctx.tx, personId, code, ctx.now)))
    throw new Problem(401, 'wrong-code', 'This code does not fit, or was used already; wait for the next one.')
  await forgetTries(ctx, event, codeKeyOf(personId))
}

async function noteChange(ctx: Context, event: H3Event, begun: boolean): Promise<void> {
  const from = addressOf(event.node.req, environment().trustedProxies)
  const type = begun ? 'second factor begun' : 'second factor ended'
  await appendEvent(ctx, { type, subjectKind: 'session', subjectId: ctx.actor.id, after: { from } })
  const about = { kind: 'session', id: ctx.actor.id }
  const told = { code: 'second-factor-changed', begun, from } as const
  await tellPerson(ctx, ctx.actor.id, about, told, { path: '/account', ownDoing: true })
}
