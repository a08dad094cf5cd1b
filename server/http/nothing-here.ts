import { sendRedirect, setHeader, type H3Event } from 'h3'
import { ALL_ROUTES } from '#shared/contract/all-routes'
import { Problem } from './problem'
import { replyProblem } from './reply-problem'

/** Every route's address as a pattern. */
const ROUTES = ALL_ROUTES.map(({ path, method }) => ({
  pattern: new RegExp(`^${path.replaceAll('.', '\\.').replace(/\{[^}]+\}/g, '[^/]+')}$`),
  method: method as string,
}))

/** An address below /api that is none; /api itself leads to the page that a person reads. */
export function nothingHere(event: H3Event): string | Promise<void> {
  if (event.method === 'GET' && /^\/api\/?(\?|$)/.test(event.path)) return sendRedirect(event, '/guide', 302)
  const detail = 'There is nothing at this address; /api/openapi.json lists what there is.'
  return replyProblem(event, new Problem(404, 'not-found', detail))
}

/** Refuses a method that an address does not take, and names those it takes (RFC 9110, 15.5.6). */
export function refuseOtherMethods(event: H3Event): string | undefined {
  const path = event.path.split('?')[0] ?? ''
  if (!path.startsWith('/api/')) return undefined
  const methods = ROUTES.filter((r) => r.pattern.test(path)).map((r) => r.method)
  const asked = event.method === 'HEAD' ? 'GET' : event.method
  if (methods.length === 0 || methods.includes(asked)) return undefined
  setHeader(event, 'allow', methods.join(', '))
  return replyProblem(event, new Problem(405, 'no-such-method', `This address takes ${methods.join(' and ')}.`))
}
