import { createHash } from 'node:crypto'
import type { H3Event } from 'h3'
import { dayOf } from '#core/base/day'
import type { Me } from '#shared/contract/session'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { environment } from '../environment'
import { addressOf } from '../http/address-of'
import { Problem } from '../http/problem'
import { postMails } from '../mail/post-mail'
import { lockOwnAccount } from '../people/actor-reads'
import { endOneTimeKeys, insertOneTimeKey, takeOneTimeKey } from '../people/one-time-store'
import { hashPassword } from '../people/password'
import { findReachable, listUninvited, type Reachable } from '../people/person-reads'
import { endOtherSessions } from '../people/session-store'
import { requireSoundPassword } from '../people/sound-password'
import { setPasswordHash } from '../people/store'
import { endTokens } from '../people/token-store'
import { tellPerson } from '../people/tell-person'
import { requireOrganisation } from '../settings/reads'
import { countTry } from './count-tries'
import { requireFactor } from './second-factor'
import { beginSession } from './sign-in'

const HOUR_MS = 3_600_000
/** An invitation waits for somebody who may be on holiday; what was forgotten is wanted now. */
const INVITED_MS = 7 * 24 * HOUR_MS
const FORGOTTEN_MS = 2 * HOUR_MS

/** Mails a person an address by which they choose a password, once; one mailed before opens nothing any more. */
async function mailKey(ctx: Context, to: Reachable, code: 'invited' | 'password-forgotten', ms: number): Promise<void> {
  const { tx, now } = ctx
  await endOneTimeKeys(tx, 'password', to.id)
  const expiresAt = new Date(now.getTime() + ms)
  const key = await insertOneTimeKey(tx, { purpose: 'password', personId: to.id, expiresAt })
  const { name } = await requireOrganisation(tx)
  await postMails(tx, [
    {
      personId: to.id,
      toName: to.name,
      toAddress: to.email,
      told: { code, organisation: name },
      path: `/password?key=${key}`,
      aboutKind: 'session',
      aboutId: to.id,
      notBefore: now,
      now,
    },
  ])
  await appendEvent(ctx, { type: code, subjectKind: 'session', subjectId: to.id })
}

/** Invites everybody who has no password yet and has not left; answers with how many. */
export async function invitePeople(ctx: Context): Promise<{ invited: number }> {
  const { timeZone } = await requireOrganisation(ctx.tx)
  const people = await listUninvited(ctx.tx, dayOf(ctx.now, timeZone))
  for (const p of people) await mailKey(ctx, p, 'invited', INVITED_MS)
  return { invited: people.length }
}

/** Counts a try to have a password mailed: nobody's post is to be filled by strangers. */
export const countForgotten = (ctx: Context, event: H3Event, email: string): Promise<void> =>
  countTry(ctx, event, `forgotten ${email.trim().toLowerCase()}`)

/** Mails whoever has this address a way to choose another password; nothing tells whether anybody has it. */
export async function mailForgotten(ctx: Context, email: string): Promise<void> {
  const { timeZone } = await requireOrganisation(ctx.tx)
  const found = await findReachable(ctx.tx, email.trim(), dayOf(ctx.now, timeZone))
  if (found !== null) await mailKey(ctx, found, 'password-forgotten', FORGOTTEN_MS)
}

/** Counts a try of a code beside a key: a key that was mailed opens no door to guessing. */
export async function countKeyCode(ctx: Context, event: H3Event, key: string, code: string): Promise<void> {
  if (code !== '') await countTry(ctx, event, `code beside ${createHash('sha256').update(key).digest('hex')}`)
}

/** Chooses a password by a key that was mailed; all sessions end, and a new one begins here. */
export async function choosePassword(
  ctx: Context,
  event: H3Event,
  { key, next, code }: { readonly key: string; readonly next: string; readonly code: string },
): Promise<Me> {
  const personId = (await takeOneTimeKey(ctx.tx, 'password', key, ctx.now))?.personId ?? null
  const own = personId === null ? null : await lockOwnAccount(ctx.tx, personId)
  if (personId === null || own === null)
    throw new Problem(404, 'not-found', 'This address opens nothing any more; have another one mailed to you.')
  await requireSoundPassword(next, null, [own.name, own.email, own.organisation], 'next')
  // Whoever reads somebody's mail has one factor of two.
  await requireFactor(ctx, event, personId, code)
  await setPasswordHash(ctx.tx, personId, await hashPassword(next))
  const from = addressOf(event.node.req, environment().trustedProxies)
  const ended = await endOtherSessions(ctx.tx, personId, '', ctx.now)
  const tokens = await endTokens(ctx.tx, personId, ctx.now)
  const about = { kind: 'session', id: personId }
  await appendEvent(ctx, {
    type: 'password chosen',
    subjectKind: about.kind,
    subjectId: personId,
    after: { from, ended, tokens },
  })
  if (own.passwordHash !== null)
    await tellPerson(ctx, personId, about, { code: 'password-changed', from }, { path: '/account', ownDoing: true })
  return beginSession(ctx, event, personId)
}
