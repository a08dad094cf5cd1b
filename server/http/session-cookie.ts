import { useSession, type H3Event } from 'h3'
import { environment } from '../environment'

/** The sealed cookie holds nothing but the id of a session row, so that sessions can be ended. */
export async function sessionCookie(event: H3Event): Promise<{ id: string | null; set: (id: string) => Promise<void>; clear: () => Promise<void> }> {
  const { sessionSecret, cookieSecure } = environment()
  const sealed = await useSession<{ sid?: string }>(event, {
    password: sessionSecret, name: 'rekko', maxAge: 60 * 60 * 24 * 14,
    cookie: { httpOnly: true, sameSite: 'lax', secure: cookieSecure, path: '/' },
  })
  return {
    id: sealed.data.sid ?? null,
    set: async (id) => { await sealed.update({ sid: id }) },
    clear: async () => { await sealed.clear() },
  }
}
