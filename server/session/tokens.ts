import { may, TOKEN_RIGHTS, type Right } from '#core/people/rights'
import type { TokenView } from '#shared/contract/account'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { notFound, refused } from '../http/problem'
import { endToken, insertToken, listTokens } from '../people/token-store'

const DAY_MS = 86_400_000
/** Tokens that somebody may hold at once. */
const MOST = 20

/** One's tokens, and the rights that one may give to another. */
export async function readTokens({ tx, actor }: Context): Promise<{ tokens: TokenView[]; rights: Right[] }> {
  return {
    tokens: await listTokens(tx, actor.id),
    rights: TOKEN_RIGHTS.filter((r) => may(actor.grants, r)),
  }
}

/** Makes a token with some of one's rights; what it is, is told this once. */
export async function makeToken(
  ctx: Context,
  t: { readonly name: string; readonly rights: readonly Right[]; readonly days: number },
): Promise<{ id: string; token: string }> {
  const { tx, actor, now } = ctx
  const beyond = t.rights.filter((r) => !may(actor.grants, r))
  if (beyond.length > 0) throw refused([`You have no right to ${beyond.join(', ')} yourself.`])
  if ((await listTokens(tx, actor.id)).length >= MOST)
    throw refused([`You have ${MOST} tokens; end one that is not needed any more.`])
  const expiresAt = new Date(now.getTime() + t.days * DAY_MS)
  const rights = [...new Set(t.rights)]
  const made = await insertToken(tx, { personId: actor.id, name: t.name.trim(), rights, createdAt: now, expiresAt })
  const after = { token: made.id, name: t.name.trim(), rights, expiresAt: expiresAt.toISOString() }
  await appendEvent(ctx, { type: 'token made', subjectKind: 'session', subjectId: actor.id, after })
  return made
}

/** Ends one of one's tokens at once. */
export async function dropToken(ctx: Context, id: string): Promise<void> {
  if (!(await endToken(ctx.tx, ctx.actor.id, id, ctx.now))) throw notFound('This token')
  const about = { subjectKind: 'session', subjectId: ctx.actor.id }
  await appendEvent(ctx, { type: 'token ended', ...about, after: { token: id } })
}
