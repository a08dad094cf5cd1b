import type { H3Event } from 'h3'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { environment } from '../environment'
import { addressOf } from '../http/address-of'
import { notFound, Problem } from '../http/problem'
import { notifyChange } from '../live/notify'
import { lockOwnAccount } from '../people/actor-reads'
import { checkPassword, hashPassword } from '../people/password'
import { endOtherSessions } from '../people/session-store'
import { requireSoundPassword } from '../people/sound-password'
import { setPasswordHash } from '../people/store'
import { tellPerson } from '../people/tell-person'
import { sessionIdOf } from '../http/session-cookie'
import { countTry, forgetTries } from './count-tries'

interface Entered {
  readonly current: string
  readonly next: string
}
const keyOf = ({ actor }: Context) => `password of ${actor.id}`

/** Counts a try to change one's password: a page left open is no place to find out the password by trying. */
export const countChangeTry = (ctx: Context, event: H3Event): Promise<void> => countTry(ctx, event, keyOf(ctx))

/** A wrong password is noted; where only the new one was not taken, nothing is held against whoever wrote it. */
export async function noteChangeRefusal(ctx: Context, event: H3Event, problem: Problem): Promise<void> {
  if (problem.type === 'invalid') await forgetTries(ctx, event, keyOf(ctx))
  if (problem.type === 'wrong-password')
    await appendEvent(ctx, {
      type: 'password change refused',
      subjectKind: 'session',
      subjectId: ctx.actor.id,
      after: { from: addressOf(event.node.req, environment().trustedProxies) },
    })
}

/**
 * Changes one's password; whoever does names the one of now. All other sessions of the person end, and they are told by
 * mail, in case it was somebody else.
 */
export async function changePassword(ctx: Context, event: H3Event, { current, next }: Entered): Promise<void> {
  const own = await lockOwnAccount(ctx.tx, ctx.actor.id)
  if (own === null) throw notFound('This person')
  if (!(await checkPassword(current, own.passwordHash)))
    throw new Problem(422, 'wrong-password', 'This is not the password you have now.', [
      { field: 'current', message: 'is not the password of now' },
    ])
  await forgetTries(ctx, event, keyOf(ctx))
  await requireSoundPassword(next, current, [own.name, own.email, own.organisation], 'next')
  await setPasswordHash(ctx.tx, ctx.actor.id, await hashPassword(next))
  const from = addressOf(event.node.req, environment().trustedProxies)
  const ended = await endOtherSessions(ctx.tx, ctx.actor.id, (await sessionIdOf(event)) ?? '', ctx.now)
  const about = { subjectKind: 'session', subjectId: ctx.actor.id }
  await appendEvent(ctx, { type: 'password changed', ...about, after: { from, ended } })
  await notifyChange(ctx.tx, { kind: 'session', id: ctx.actor.id })
  await tellPerson(
    ctx,
    ctx.actor.id,
    { kind: 'session', id: ctx.actor.id },
    { code: 'password-changed', from },
    { path: '/account', ownDoing: true },
  )
}
