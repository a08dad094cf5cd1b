import pg from 'pg'
import type { LiveMessage, LivePush } from '#shared/contract/live'
import type { Db } from '../db/client'
import { listWhoSee } from '../document/visible'
import { KINDS } from '../kinds'
import type { Actor } from '../people/actor'
import { listLiveActors } from '../people/actor-reads'
import type { SessionLife } from '../people/session-reads'
import { countWaiting } from '../session/waiting-reads'
import { log } from '../http/report'
import { CHANNEL } from './notify'

/** One open page's stream. */
export interface Listener {
  readonly sessionId: string
  readonly push: (push: LivePush) => void
  readonly close: () => void
}

/** Changes that come within so long of each other are told together. */
const MOMENT_MS = 100

const listeners = new Set<Listener>()

/** Adds a stream; call what it returns when the page goes. */
export function listen(listener: Listener): () => void {
  listeners.add(listener)
  return () => {
    listeners.delete(listener)
  }
}

/** Ends all streams, or they would hold up a shutdown. */
export function closeStreams(): void {
  for (const l of listeners) l.close()
  listeners.clear()
}

/**
 * Listens for what other transactions changed, in all servers, and tells it to whoever may see it. After a lost
 * connection, pages are told to read again, since notices missed meanwhile are gone.
 */
export function startHub(url: string, db: Db, clock: () => Date, life: SessionLife): { stop: () => Promise<void> } {
  const gather = gathering((changes) =>
    spread(db, changes, clock(), life).catch((error: unknown) => {
      log.warn({ live: String(error) })
    }),
  )
  let client: pg.Client | null = null
  let stopped = false
  const connect = async (again: boolean): Promise<void> => {
    if (stopped) return
    const c = new pg.Client({ connectionString: url, application_name: 'rekko-live' })
    c.on('error', () => undefined)
    c.on('end', () => {
      if (!stopped)
        setTimeout(() => {
          void connect(true)
        }, 1000)
    })
    c.on('notification', (n) => {
      gather(JSON.parse(n.payload ?? '{}') as LiveMessage)
    })
    try {
      await c.connect()
      await c.query(`listen ${CHANNEL}`)
      client = c
      if (again) for (const l of listeners) l.push({ changes: [{ kind: 'again', id: '' }] })
    } catch {
      void c.end().catch(() => undefined)
    }
  }
  void connect(false)
  return {
    stop: async () => {
      stopped = true
      await client?.end().catch(() => undefined)
    },
  }
}

/**
 * Collects changes, each once, and hands on what came within a moment of the first, or until what was handed on before
 * is told: so that nobody is left with older counts than they had.
 */
function gathering(handOn: (changes: LiveMessage[]) => Promise<void>): (change: LiveMessage) => void {
  let waiting = new Map<string, LiveMessage>()
  let turn = Promise.resolve()
  const takeTurn = () => {
    const changes = [...waiting.values()]
    waiting = new Map()
    return handOn(changes)
  }
  return (change) => {
    if (listeners.size === 0) return
    if (waiting.size === 0)
      setTimeout(() => {
        turn = turn.then(takeTurn)
      }, MOMENT_MS)
    waiting.set(`${change.kind} ${change.id}`, change)
  }
}

/**
 * Tells changes to the pages of those who may see them now, with what waits for each since, so that no page has to ask;
 * the streams of sessions that ended are ended.
 */
async function spread(db: Db, changes: readonly LiveMessage[], now: Date, life: SessionLife): Promise<void> {
  if (listeners.size === 0) return
  const live = await listLiveActors(db, [...new Set([...listeners].map((l) => l.sessionId))], now, life)
  const people = [...new Map([...live.values()].map((a) => [a.id, a])).values()]
  const heard = new Map<string, LiveMessage[]>()
  for (const change of changes)
    for (const id of await whoSees(db, change, people, now)) heard.set(id, [...(heard.get(id) ?? []), change])
  const waiting = await countWaiting(
    db,
    people.filter((p) => heard.has(p.id)),
    now,
  )
  for (const l of [...listeners]) {
    const actor = live.get(l.sessionId)
    if (actor === undefined) {
      listeners.delete(l)
      l.close()
      continue
    }
    const own = heard.get(actor.id)
    if (own !== undefined) l.push({ changes: own, waiting: waiting.get(actor.id) })
  }
}

/** Which of these people may see a change. */
async function whoSees(db: Db, change: LiveMessage, people: readonly Actor[], now: Date): Promise<Iterable<string>> {
  if (change.kind === 'settings') return people.map((p) => p.id)
  const kind = KINDS[change.kind]
  if (kind === undefined) return people.filter((p) => p.id === change.id).map((p) => p.id)
  return listWhoSee({ tx: db, now }, kind, change.id, people)
}
