import { defineStore } from 'pinia'
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

  return { me, expired, load }
})
