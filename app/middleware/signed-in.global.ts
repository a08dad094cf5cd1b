import { useSessionStore } from '~/stores/session'

/** Everything but the sign-in page needs somebody who is signed in; `/` leads to where something waits. */
export default defineNuxtRouteMiddleware(async (to) => {
  const session = useSessionStore()
  if (session.me === null) await session.load()
  if (session.me === null)
    return to.path === '/sign-in'
      ? undefined
      : navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { to: to.fullPath } })
  if (to.path === '/') return navigateTo(session.me.landing, { replace: true })
})
