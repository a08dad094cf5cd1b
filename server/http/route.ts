import {
  defineEventHandler,
  getHeader,
  getQuery,
  getRequestHeader,
  getRouterParams,
  setHeader,
  setResponseStatus,
  type EventHandler,
  type H3Event,
} from 'h3'
import type { z } from 'zod'
import { may } from '#core/people/rights'
import type { RouteSpec } from '#shared/contract/route'
import type { Tx } from '../db/client'
import { inTransaction } from '../db/transaction'
import { LARGEST_UPLOAD } from '../files/check-upload'
import { environment } from '../environment'
import { findByToken, findSignedIn } from '../people/actor-reads'
import { setSessionSeen } from '../people/session-store'
import { setTokenUsed } from '../people/token-store'
import type { Actor } from '../people/actor'
import type { Context } from '../context'
import { clock } from '../clock'
import { database } from './app'
import { cutReply } from './cut-reply'
import { once } from './idempotency'
import { replyProblem } from './reply-problem'
import { asProblem } from './report'
import { forbidden, Problem } from './problem'
import { parsePart, readBytes, readJson, readVersion } from './read-input'
import { sessionIdOf } from './session-cookie'

/** What a route's work gets: the transaction with who acts, and the parts of the request, checked. */
export interface Call<S extends RouteSpec> {
  readonly ctx: Context
  readonly event: H3Event
  readonly params: z.output<S['params']>
  readonly query: z.output<S['query']>
  readonly body: z.output<S['body']>
  readonly version: number
  readonly bytes: Buffer
}

/** A session's idle time is moved on once a minute at most. */
const SEEN_AGAIN_MS = 60_000

const NOBODY: Actor = { id: '', name: '', locale: 'en-GB', grants: [] }

/**
 * Makes a route of its description: checks where the request comes from, who asks and what they send,
 * runs the work (a change in one transaction), and turns every refusal into problem details.
 */
export function route<S extends RouteSpec>(
  spec: S,
  work: (call: Call<S>) => Promise<z.input<S['reply']> | Buffer | void>,
  options: {
    /** What happens before it in a transaction of its own, and stays when the work is refused. */
    readonly before?: (call: Call<S>) => Promise<void>
    /** What is done in a transaction of its own when the work was refused. */
    readonly refused?: (call: Call<S>, problem: Problem) => Promise<void>
    /** What a repeat under the same key hears, where more may have happened since the first answer. */
    readonly again?: (call: Call<S>, first: z.input<S['reply']>) => Promise<z.input<S['reply']>>
    /** It changes nothing and may take long: it gets no transaction, and holds no connection while it is at work. */
    readonly changesNothing?: boolean
  } = {},
): EventHandler {
  return defineEventHandler(async (event) => {
    try {
      // No page can send another's token, as it sends their cookies.
      if (spec.method !== 'GET' && tokenOf(event) === null) refuseForeign(event)
      const now = clock()
      const { db } = database()
      const actor = spec.access === 'public' ? NOBODY : await requireActor(event, db, now)
      if (spec.access !== 'public' && !may(actor.grants, spec.access))
        throw forbidden(
          actor.lacksFactor === true
            ? 'Set up a second factor first, under Account: your organisation asks for one.'
            : `You have no right to ${spec.access}. Ask an administrator if you need it.`,
        )
      const params: z.output<S['params']> = parsePart<S['params']>(spec.params, getRouterParams(event), 'address')
      const query: z.output<S['query']> = parsePart<S['query']>(spec.query, getQuery(event), 'query')
      const takesBody = (spec.method === 'POST' || spec.method === 'PUT') && spec.bytes !== 'upload'
      const body: z.output<S['body']> = parsePart<S['body']>(spec.body, takesBody ? await readJson(event) : {}, 'body')
      const version = spec.ifMatch ? readVersion(event) : 0
      const bytes = spec.bytes === 'upload' ? await readBytes(event, LARGEST_UPLOAD) : Buffer.alloc(0)
      const call = (tx: Tx) => ({ ctx: { tx, now, actor }, event, params, query, body, version, bytes })
      const { before, again, refused } = options
      const run = (tx: Tx) => work(call(tx))
      const key = spec.idempotent ? getHeader(event, 'idempotency-key') : undefined
      const change = (tx: Tx) =>
        key === undefined
          ? run(tx)
          : once(
              tx,
              { personId: actor.id, key, route: spec.name, input: { params, body, version }, now },
              () => run(tx),
              again === undefined ? undefined : (first) => again(call(tx), first as z.input<S['reply']>),
            )
      const reply = async () => {
        if (before !== undefined) await inTransaction(db, (tx) => before(call(tx)))
        return spec.method === 'GET' || options.changesNothing === true ? run(db) : inTransaction(db, change)
      }
      return finish(
        event,
        spec,
        await reply().catch(async (error: unknown) => {
          if (refused !== undefined && error instanceof Problem)
            await inTransaction(db, (tx) => refused(call(tx), error))
          throw error
        }),
      )
    } catch (error) {
      return replyProblem(event, asProblem(error, `${spec.method} ${spec.path}`))
    }
  })
}

function finish(event: H3Event, spec: RouteSpec, reply: unknown): unknown {
  if (spec.bytes === 'download' || spec.bytes === 'stream') return reply
  setHeader(event, 'cache-control', 'no-store')
  if (reply === undefined) {
    setResponseStatus(event, 204)
    return null
  }
  if (typeof reply === 'object' && reply !== null && 'version' in reply && typeof reply.version === 'number')
    setHeader(event, 'etag', `"${reply.version}"`)
  return cutReply(spec.reply, reply)
}

/** The token of a request (RFC 6750); a request that brings one has no part in its sender's cookies. */
function tokenOf(event: H3Event): string | null {
  return /^Bearer +(\S+)$/i.exec(getRequestHeader(event, 'authorization') ?? '')?.[1] ?? null
}

async function requireTokenActor(token: string, tx: Tx, now: Date): Promise<Actor> {
  const found = await findByToken(tx, token, now)
  if (found === null)
    throw new Problem(401, 'no-token', 'This token opens nothing: it ended, it expired, or it never was one.')
  if (found.usedAt === null || now.getTime() - found.usedAt.getTime() > SEEN_AGAIN_MS)
    await setTokenUsed(tx, found.tokenId, now)
  return found.actor
}

/** A change must come from our own pages, or from no page at all. */
function refuseForeign(event: H3Event): void {
  const site = getRequestHeader(event, 'sec-fetch-site')
  const origin = getRequestHeader(event, 'origin')
  const host = getRequestHeader(event, 'host')
  const foreign =
    site !== undefined
      ? site !== 'same-origin' && site !== 'none'
      : origin !== undefined && origin !== 'null' && hostOf(origin) !== host
  if (foreign || (site === undefined && origin === 'null'))
    throw new Problem(403, 'foreign-page', 'This change was asked for by another site and was not made.')
}

function hostOf(origin: string): string | null {
  return URL.canParse(origin) ? new URL(origin).host : null
}

/** Whoever is signed in; 401 where nobody is. */
async function requireActor(event: H3Event, tx: Tx, now: Date): Promise<Actor> {
  const token = tokenOf(event)
  if (token !== null) return requireTokenActor(token, tx, now)
  const id = await sessionIdOf(event)
  const found = id === null ? null : await findSignedIn(tx, id, now, environment())
  if (id === null || found === null) throw new Problem(401, 'not-signed-in', 'Sign in first; what you typed is kept.')
  if (now.getTime() - found.seenAt.getTime() > SEEN_AGAIN_MS) await setSessionSeen(tx, id, now)
  return found.actor
}
