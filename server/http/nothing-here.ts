import { setHeader, setResponseStatus, type H3Event } from 'h3'
import { ALL_ROUTES } from '#shared/contract/all-routes'

/** Every route's address as a pattern. */
const ROUTES = ALL_ROUTES.map(({ path, method }) => ({
  pattern: new RegExp(`^${path.replaceAll('.', '\\.').replace(/\{[^}]+\}/g, '[^/]+')}$`),
  method: method as string,
}))

/** An address below /api that is none. */
export function nothingHere(event: H3Event): string {
  return refuse(event, 404, 'not found', 'There is nothing at this address; /api/openapi.json lists what there is.')
}

/** Refuses a method that an address does not take, and names those it takes (RFC 9110, 15.5.6). */
export function refuseOtherMethods(event: H3Event): string | undefined {
  const path = event.path.split('?')[0] ?? ''
  if (!path.startsWith('/api/')) return undefined
  const methods = ROUTES.filter((r) => r.pattern.test(path)).map((r) => r.method)
  const asked = event.method === 'HEAD' ? 'GET' : event.method
  if (methods.length === 0 || methods.includes(asked)) return undefined
  setHeader(event, 'allow', methods.join(', '))
  return refuse(event, 405, 'no such method', `This address takes ${methods.join(' and ')}.`)
}

function refuse(event: H3Event, status: number, title: string, detail: string): string {
  setResponseStatus(event, status)
  setHeader(event, 'content-type', 'application/problem+json')
  return JSON.stringify({ type: `urn:rekko:${title.replaceAll(' ', '-')}`, title, status, detail })
}
