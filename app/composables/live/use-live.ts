import type { LiveMessage } from '#shared/contract/live'

type Follower = (change: LiveMessage) => void

const CHANNEL = 'rekko-live'

interface Shared {
  followers: Set<Follower>
  started: boolean
}

/**
 * Follows what changes elsewhere. A browser gives a site six connections, so one tab holds the stream
 * and shares it with the others; where tabs cannot agree, each has its own.
 */
export function useLive(follow: Follower): void {
  const nuxt = useNuxtApp() as unknown as { _rekkoLive?: Shared }
  onMounted(() => {
    const shared = (nuxt._rekkoLive ??= { followers: new Set(), started: false })
    shared.followers.add(follow)
    if (!shared.started) {
      shared.started = true
      start(shared)
    }
  })
  onBeforeUnmount(() => {
    nuxt._rekkoLive?.followers.delete(follow)
  })
}

function start(shared: Shared): void {
  const tell = (change: LiveMessage) => {
    for (const f of shared.followers) f(change)
  }
  const channel = 'BroadcastChannel' in window ? new BroadcastChannel(CHANNEL) : null
  channel?.addEventListener('message', (e: MessageEvent<LiveMessage>) => {
    tell(e.data)
  })
  const lead = () => {
    open((change) => {
      tell(change)
      channel?.postMessage(change)
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

function open(tell: (change: LiveMessage) => void): void {
  let lost = false
  const source = new EventSource('/api/live')
  source.addEventListener('message', (e: MessageEvent<string>) => {
    tell(JSON.parse(e.data) as LiveMessage)
  })
  source.addEventListener('open', () => {
    if (lost) {
      lost = false
      tell({ kind: 'again', id: '' })
    }
  })
  source.addEventListener('error', () => {
    lost = true
    if (source.readyState === EventSource.CLOSED)
      setTimeout(() => {
        open(tell)
        tell({ kind: 'again', id: '' })
      }, 5000)
  })
}
