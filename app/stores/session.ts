import { defineStore } from 'pinia'
import type { Waiting } from '#shared/contract/live'
import type { Me } from '#shared/contract/session'
import { useApi } from '~/composables/base/use-api'
import { useExpired } from '~/composables/base/use-expired'

/** Who is signed in, shared by all pages. */
export const useSessionStore = defineStore('session', () => {
  const me = ref<Me | null>(null)
  const expired = useExpired()

  async function load(): Promise<void> {
    try {
      me.value = await useApi().get('/api/session')
    } catch {
      me.value = null
    }
  }

  /** What waits for oneself, as the stream of changes tells it. */
  function setWaiting(waiting: Waiting): void {
    if (me.value !== null) me.value = { ...me.value, waiting: waiting.at, unread: waiting.unread }
  }

  return { me, expired, load, setWaiting }
})
