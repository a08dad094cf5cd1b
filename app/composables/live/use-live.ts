import type { LiveMessage, LivePush } from '#shared/contract/live'
import { useSessionStore } from '~/stores/session'

/** Hears of the changes of a moment, all at once. */
type Follower = (changes: readonly LiveMessage[]) => void

const CHANNEL = 'rekko-live'
/** How long after the first change followers hear of all: by chance, so that many pages do not ask at once. */
const WAIT_MS = { least: 100, most: 400 }
const AGAIN: LivePush = { changes: [{ kind: 'again', id: '' }] }

interface Shared {
  followers: Set<Follower>
  started: boolean
}

/**
 * Follows what changes elsewhere. A browser gives a site six connections, so one tab holds the stream
 * and shares it with the others; where tabs cannot agree, each has its own. What waits for oneself comes along and is
 * shown by itself.
 */
export function useLive(follow: Follower): void {
  const nuxt = useNuxtApp() as unknown as { _rekkoLive?: Shared }
  const session = useSessionStore()
  onMounted(() => {
    const shared = (nuxt._rekkoLive ??= { followers: new Set(), started: false })
    shared.followers.add(follow)
    if (!shared.started) {
      shared.started = true
      start(shared, (push) => {
        if (push.changes.some((c) => c.kind === 'again')) {
          if (!session.expired) void session.load()
        } else if (push.waiting !== undefined) session.setWaiting(push.waiting)
      })
    }
  })
  onBeforeUnmount(() => {
    nuxt._rekkoLive?.followers.delete(follow)
  })
}

function start(shared: Shared, hear: (push: LivePush) => void): void {
  const gather = gathering((changes) => {
    for (const f of shared.followers) f(changes)
  })
  const tell = (push: LivePush) => {
    hear(push)
    gather(push.changes)
  }
  const channel = 'BroadcastChannel' in window ? new BroadcastChannel(CHANNEL) : null
  channel?.addEventListener('message', (e: MessageEvent<LivePush>) => {
    tell(e.data)
  })
  const lead = () => {
    open((push) => {
      tell(push)
      channel?.postMessage(push)
    })
  }
  if (channel === null || !('locks' in navigator)) {
    lead()
    return
  }
  void navigator.locks.request(CHANNEL, () => {
    lead()
    return new Promise(() => undefined)
  })
}

/** Collects changes, each once, and hands on together what came while it waited. */
function gathering(handOn: (changes: LiveMessage[]) => void): (changes: readonly LiveMessage[]) => void {
  let waiting = new Map<string, LiveMessage>()
  return (changes) => {
    if (waiting.size === 0 && changes.length > 0)
      setTimeout(
        () => {
          const all = [...waiting.values()]
          waiting = new Map()
          handOn(all)
        },
        WAIT_MS.least + Math.random() * (WAIT_MS.most - WAIT_MS.least),
      )
    for (const c of changes) waiting.set(`${c.kind} ${c.id}`, c)
  }
}

function open(tell: (push: LivePush) => void): void {
  let lost = false
  const source = new EventSource('/api/live')
  source.addEventListener('message', (e: MessageEvent<string>) => {
    tell(JSON.parse(e.data) as LivePush)
  })
  source.addEventListener('open', () => {
    if (lost) {
      lost = false
      tell(AGAIN)
    }
  })
  source.addEventListener('error', () => {
    lost = true
    if (source.readyState === EventSource.CLOSED)
      setTimeout(() => {
        open(tell)
        tell(AGAIN)
      }, 5000)
  })
}
