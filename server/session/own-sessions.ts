import Bowser from 'bowser'
import type { H3Event } from 'h3'
import type { SessionView } from '#shared/contract/session'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { environment } from '../environment'
import { notFound } from '../http/problem'
import { sessionIdOf } from '../http/session-cookie'
import { notifyChange } from '../live/notify'
import { listSessions } from '../people/session-reads'
import { endOtherSessions, endSessionCalled } from '../people/session-store'

/** Where one is signed in, the asking session first. */
export async function readOwnSessions(ctx: Context, event: H3Event): Promise<{ sessions: SessionView[] }> {
  const asking = (await sessionIdOf(event)) ?? ''
  const found = await listSessions(ctx.tx, ctx.actor.id, asking, ctx.now, environment())
  return { sessions: found.map(({ agent, ...s }) => ({ ...s, browser: sayBrowser(agent) })) }
}

/** Ends one of one's own sessions; its pages are told at once. */
export async function endOwnSession(ctx: Context, handle: string): Promise<void> {
  if (!(await endSessionCalled(ctx.tx, ctx.actor.id, handle, ctx.now))) throw notFound('This session')
  await tellEnded(ctx, 1)
}

/** Ends all of one's sessions but the one that asks. */
export async function endOthers(ctx: Context, event: H3Event): Promise<{ ended: number }> {
  const ended = await endOtherSessions(ctx.tx, ctx.actor.id, (await sessionIdOf(event)) ?? '', ctx.now)
  if (ended > 0) await tellEnded(ctx, ended)
  return { ended }
}

async function tellEnded(ctx: Context, ended: number): Promise<void> {
  const about = { subjectKind: 'session', subjectId: ctx.actor.id }
  await appendEvent(ctx, { type: 'sessions ended', ...about, after: { ended } })
  await notifyChange(ctx.tx, { kind: 'session', id: ctx.actor.id })
}

/** A browser by what it says of itself, such as “Firefox on Linux”; empty where it says nothing known. */
function sayBrowser(agent: string): string {
  if (agent === '') return ''
  const { browser, os } = Bowser.parse(agent)
  return [browser.name, os.name].filter((n) => n !== undefined && n !== '').join(' on ')
}
