import { useSessionStore } from '~/stores/session'

/** What a one-time address opens needs nobody who is signed in. */
const BY_KEY = ['/begin', '/password', '/answer']

/** Everything else but the sign-in page needs somebody who is signed in; `/` leads to where something waits. */
export default defineNuxtRouteMiddleware(async (to) => {
  if (BY_KEY.includes(to.path)) return
  const session = useSessionStore()
  if (session.me === null) await session.load()
  if (session.me === null)
    return to.path === '/sign-in'
      ? undefined
      : navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { to: to.fullPath } })
  if (to.path === '/') return navigateTo(session.me.landing, { replace: true })
})
