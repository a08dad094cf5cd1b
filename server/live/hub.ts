import pg from 'pg'
import { may } from '#core/people/rights'
import { type Db } from '../db/client'
import { listWatchers } from '../requisition/visible'
import { type Actor } from '../people/actor'
import { CHANNEL, type Change } from './notify'

/** One open page's stream. */
export interface Listener {
  readonly actor: Actor
  readonly push: (change: Change | { readonly kind: 'again' }) => void
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
 * Listens for what other transactions changed, in all servers, and tells it to whoever may see it. After
 * a lost connection, pages are told to read again, since notices missed meanwhile are gone.
 */
export function startHub(url: string, db: Db): { stop: () => Promise<void> } {
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
      void spread(db, n.payload ?? '')
    })
    try {
      await c.connect()
      await c.query(`listen ${CHANNEL}`)
      client = c
      if (again) for (const l of listeners) l.push({ kind: 'again' })
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

async function spread(db: Db, payload: string): Promise<void> {
  if (listeners.size === 0) return
  const change = JSON.parse(payload) as Change
  const watchers = change.kind === 'requisition' ? new Set(await listWatchers(db, change.id).catch(() => [])) : null
  for (const l of listeners) {
    const sees =
      watchers !== null
        ? watchers.has(l.actor.id)
        : change.kind === 'order'
          ? may(l.actor.grants, 'see orders')
          : change.kind === 'settings' || change.id === l.actor.id
    if (sees) l.push(change)
  }
}
