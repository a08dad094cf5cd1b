import { getCookie, useSession, type H3Event } from 'h3'
import { environment } from '../environment'

/**
 * Sessions behind cookies seen before: opening a seal costs as much as a statement. A session that ended is refused by
 * its row.
 */
const OPENED = new Map<string, string>()
const REMEMBERED = 500
/** Over HTTPS the name itself says that no other host and no plain page set it (RFC 6265bis, cookie prefixes). */
export const cookieName = () => (environment().cookieSecure ? '__Host-rekko' : 'rekko')

/** The session's id of a request; null where its cookie is absent or not ours. */
export async function sessionIdOf(event: H3Event): Promise<string | null> {
  const text = getCookie(event, cookieName())
  if (text === undefined) return null
  const known = OPENED.get(text)
  if (known !== undefined) return known
  const { id } = await sessionCookie(event)
  if (id !== null) {
    if (OPENED.size >= REMEMBERED) OPENED.clear()
    OPENED.set(text, id)
  }
  return id
}

/** The sealed cookie holds nothing but the id of a session row, so that sessions can be ended. */
export async function sessionCookie(
  event: H3Event,
): Promise<{ id: string | null; set: (id: string) => Promise<void>; clear: () => Promise<void> }> {
  const { sessionSecret, cookieSecure, sessionDays } = environment()
  const sealed = await useSession<{ sid?: string }>(event, {
    password: sessionSecret,
    name: cookieName(),
    maxAge: 60 * 60 * 24 * sessionDays,
    cookie: { httpOnly: true, sameSite: 'lax', secure: cookieSecure, path: '/' },
  })
  return {
    id: sealed.data.sid ?? null,
    set: async (id) => {
      await sealed.update({ sid: id })
    },
    clear: async () => {
      await sealed.clear()
    },
  }
}
