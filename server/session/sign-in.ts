import { randomBytes } from 'node:crypto'
import type { H3Event } from 'h3'
import type { Me } from '#shared/contract/session'
import type { Context } from '../context'
import { environment } from '../environment'
import { notFound, Problem } from '../http/problem'
import { sessionCookie } from '../http/session-cookie'
import { requireOrganisation } from '../settings/reads'
import { notifyChange } from '../live/notify'
import { checkPassword } from '../people/password'
import { findActor, findForSignIn } from '../people/actor-reads'
import { listDemoPeople } from '../people/person-reads'
import { countSignIn, endSession, forgetSignIns, insertSession } from '../people/store'
import { readMe } from './read-me'

const WINDOW_SECONDS = 300
const MOST_BY_PERSON = 10
const MOST_BY_ADDRESS = 60

interface Entered {
  readonly email: string
  readonly password: string
}
const emailOf = (input: Entered) => input.email.trim().toLowerCase()

/**
 * Counts a try to sign in, by person and by address; too many are refused. It runs before the sign-in itself and is
 * committed by itself: a refusal later rolls back everything else, not the count.
 */
export async function countTry({ tx, now }: Context, event: H3Event, input: Entered): Promise<void> {
  const address = event.node.req.socket.remoteAddress ?? ''
  const byPerson = await countSignIn(tx, `person ${emailOf(input)}`, now, WINDOW_SECONDS)
  const byAddress = await countSignIn(tx, `address ${address}`, now, WINDOW_SECONDS)
  if (byPerson > MOST_BY_PERSON || byAddress > MOST_BY_ADDRESS)
    throw new Problem(429, 'too-many-tries', 'Too many tries to sign in; wait five minutes.')
}

/** Signs a person in with e-mail and password. */
export async function signIn(ctx: Context, event: H3Event, input: Entered): Promise<Me> {
  const email = emailOf(input)
  const found = await findForSignIn(ctx.tx, email)
  const fits = await checkPassword(input.password, found?.passwordHash ?? null)
  if (found === null || !fits) throw new Problem(401, 'wrong-password', 'E-mail and password do not fit together.')
  await forgetSignIns(ctx.tx, `person ${email}`)
  return begin(ctx, event, found.id, false)
}

/** One-press sign-in: only in the demo, and only as a person the demo shows. */
export async function signInDemo(ctx: Context, event: H3Event, personId: string): Promise<Me> {
  if (!environment().isDemo || !(await requireOrganisation(ctx.tx)).isDemo) throw notFound('Signing in with one press')
  if (!(await listDemoPeople(ctx.tx)).some((p) => p.id === personId)) throw notFound('This person of the demo')
  return begin(ctx, event, personId, true)
}

async function begin(ctx: Context, event: H3Event, personId: string, byDemo: boolean): Promise<Me> {
  const actor = await findActor(ctx.tx, personId, ctx.now)
  if (actor === null) throw new Problem(401, 'wrong-password', 'E-mail and password do not fit together.')
  const id = randomBytes(24).toString('base64url')
  await insertSession(ctx.tx, { id, personId, now: ctx.now, byDemo })
  const cookie = await sessionCookie(event)
  if (cookie.id !== null) await endSession(ctx.tx, cookie.id, ctx.now)
  await cookie.set(id)
  return readMe({ ...ctx, actor })
}

/** Ends the session; the cookie is worth nothing afterwards, wherever a copy of it lies. */
export async function signOut(ctx: Context, event: H3Event): Promise<void> {
  const cookie = await sessionCookie(event)
  if (cookie.id !== null) await endSession(ctx.tx, cookie.id, ctx.now)
  await cookie.clear()
  // Its open streams end with it.
  await notifyChange(ctx.tx, { kind: 'session', id: ctx.actor.id })
}
