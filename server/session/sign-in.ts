import { randomBytes } from 'node:crypto'
import { getRequestHeader, type H3Event } from 'h3'
import type { Me } from '#shared/contract/session'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { environment } from '../environment'
import { addressOf } from '../http/address-of'
import { notFound, Problem } from '../http/problem'
import { log } from '../http/report'
import { sessionCookie } from '../http/session-cookie'
import { requireOrganisation } from '../settings/reads'
import { notifyChange } from '../live/notify'
import { checkPassword, hashPassword, isOutdated } from '../people/password'
import { findActor, findForSignIn } from '../people/actor-reads'
import { listDemoPeople } from '../people/person-reads'
import { endSession, insertSession } from '../people/session-store'
import { setPasswordHash } from '../people/store'
import { countFailure, countTry, forgetTries, uncountTry } from './count-tries'
import { readMe } from './read-me'
import { codeKeyOf, requireFactor } from './second-factor'

interface Entered {
  readonly email: string
  readonly password: string
  /** The code of a second factor; empty where none was asked for yet. */
  readonly code: string
}
const emailOf = (input: Entered) => input.email.trim().toLowerCase()

/** Under what tries are counted: a person from one address, so that no stranger elsewhere shuts them out. */
const keyOf = (event: H3Event, input: Entered) =>
  `person ${emailOf(input)} from ${addressOf(event.node.req, environment().trustedProxies)}`

/** Counts a try to sign in. */
export const countSignInTry = (ctx: Context, event: H3Event, input: Entered): Promise<void> =>
  countTry(ctx, event, keyOf(event, input))

/** Signs a person in with e-mail and password. A hash made with parameters of before is made anew. */
export async function signIn(ctx: Context, event: H3Event, input: Entered): Promise<Me> {
  const found = await findForSignIn(ctx.tx, emailOf(input))
  const fits = await checkPassword(input.password, found?.passwordHash ?? null)
  if (found === null || !fits) throw new Problem(401, 'wrong-password', 'E-mail and password do not fit together.')
  if (found.passwordHash !== null && isOutdated(found.passwordHash))
    await setPasswordHash(ctx.tx, found.id, await hashPassword(input.password))
  await requireFactor(ctx, event, found.id, input.code)
  await forgetTries(ctx, event, keyOf(event, input))
  return beginSession(ctx, event, found.id)
}

/**
 * Notes that a sign-in was refused: in the log, and where it named somebody of ours among the events too. Who only has
 * to wait leaves a line in the log: the events are kept for ever and are nobody's to fill.
 */
export async function noteRefusal(ctx: Context, event: H3Event, input: Entered, problem: Problem): Promise<void> {
  // The password fits and the code is asked for: this was no failure, and those before it stay.
  if (problem.type === 'needs-code') return uncountTry(ctx, event, keyOf(event, input))
  const found = await findForSignIn(ctx.tx, emailOf(input))
  const from = addressOf(event.node.req, environment().trustedProxies)
  // Whoever writes codes knows the password: they are counted by the person, from wherever they come.
  if (found !== null && problem.type === 'wrong-code') await countFailure(ctx, codeKeyOf(found.id))
  log.warn({ signIn: problem.type, from, person: found?.id ?? null })
  if (found !== null && problem.type !== 'too-many-tries')
    await appendEvent(ctx, {
      type: 'sign-in refused',
      subjectKind: 'session',
      subjectId: found.id,
      after: { from, why: problem.type },
    })
}

/** One-press sign-in: only in the demo, and only as a person the demo shows. */
export async function signInDemo(ctx: Context, event: H3Event, personId: string): Promise<Me> {
  if (!environment().isDemo || !(await requireOrganisation(ctx.tx)).isDemo) throw notFound('Signing in with one press')
  if (!(await listDemoPeople(ctx.tx)).some((p) => p.id === personId)) throw notFound('This person of the demo')
  return beginSession(ctx, event, personId, true)
}

/** Begins a session of somebody who proved who they are; the one that the browser had before ends. */
export async function beginSession(ctx: Context, event: H3Event, personId: string, byDemo = false): Promise<Me> {
  const actor = await findActor(ctx.tx, personId, ctx.now)
  if (actor === null) throw new Problem(401, 'wrong-password', 'E-mail and password do not fit together.')
  const id = randomBytes(24).toString('base64url')
  const fromAddress = addressOf(event.node.req, environment().trustedProxies)
  const agent = (getRequestHeader(event, 'user-agent') ?? '').slice(0, 300)
  await insertSession(ctx.tx, { id, personId, now: ctx.now, byDemo, fromAddress, agent })
  const cookie = await sessionCookie(event)
  if (cookie.id !== null) await endSession(ctx.tx, cookie.id, ctx.now)
  await cookie.set(id)
  log.info({ signIn: 'done', from: fromAddress, person: personId })
  await appendEvent(
    { ...ctx, actor },
    { type: 'signed in', subjectKind: 'session', subjectId: personId, after: { from: fromAddress } },
  )
  return readMe({ ...ctx, actor })
}

/** Ends the session; the cookie is worth nothing afterwards, wherever a copy of it lies. */
export async function signOut(ctx: Context, event: H3Event): Promise<void> {
  const cookie = await sessionCookie(event)
  if (cookie.id !== null) await endSession(ctx.tx, cookie.id, ctx.now)
  await cookie.clear()
  await appendEvent(ctx, { type: 'signed out', subjectKind: 'session', subjectId: ctx.actor.id })
  // Its open streams end with it.
  await notifyChange(ctx.tx, { kind: 'session', id: ctx.actor.id })
}
