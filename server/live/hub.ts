import pg from 'pg'
import type { LiveMessage } from '#shared/contract/live'
import type { Db } from '../db/client'
import { listWhoSee } from '../document/visible'
import { KINDS } from '../kinds'
import type { Actor } from '../people/actor'
import { listLiveActors } from '../people/actor-reads'
import type { SessionLife } from '../people/session-reads'
import { CHANNEL } from './notify'

/** One open page's stream. */
export interface Listener {
  readonly sessionId: string
  readonly push: (message: LiveMessage) => void
  readonly close: () => void
}

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
      void spread(db, JSON.parse(n.payload ?? '{}') as LiveMessage, clock(), life).catch(() => undefined)
    })
    try {
      await c.connect()
      await c.query(`listen ${CHANNEL}`)
      client = c
      if (again) for (const l of listeners) l.push({ kind: 'again', id: '' })
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

/** Tells a change to the pages of those who may see it now; the streams of sessions that ended are ended. */
async function spread(db: Db, change: LiveMessage, now: Date, life: SessionLife): Promise<void> {
  if (listeners.size === 0) return
  const live = await listLiveActors(db, [...new Set([...listeners].map((l) => l.sessionId))], now, life)
  const sees = await whoSees(db, change, [...live.values()], now)
  for (const l of [...listeners]) {
    const actor = live.get(l.sessionId)
    if (actor === undefined) {
      listeners.delete(l)
      l.close()
    } else if (sees(actor)) l.push(change)
  }
}

async function whoSees(
  db: Db,
  change: LiveMessage,
  people: readonly Actor[],
  now: Date,
): Promise<(a: Actor) => boolean> {
  if (change.kind === 'settings') return () => true
  const kind = KINDS[change.kind]
  if (kind === undefined) return (actor) => actor.id === change.id
  const once = [...new Map(people.map((p) => [p.id, p])).values()]
  const seen = await listWhoSee({ tx: db, now }, kind, change.id, once)
  return (actor) => seen.has(actor.id)
}
