import { defineStore } from 'pinia'
import type { Me } from '#shared/contract/session'
import { useApi } from '~/composables/base/use-api'

/** Who is signed in, shared by all pages. */
export const useSessionStore = defineStore('session', () => {
  const me = ref<Me | null>(null)
  /** Set when a call found the sign-in expired: the page stays, and asks to sign in again in place. */
  const expired = ref(false)

  async function load(): Promise<void> {
    try { me.value = await useApi().get<Me>('/api/session') }
    catch { me.value = null }
  }

  return { me, expired, load }
})
