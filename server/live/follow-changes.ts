import { createEventStream, type H3Event } from 'h3'
import { Problem } from '../http/problem'
import { sessionIdOf } from '../http/session-cookie'
import { listen } from './hub'

const BEAT_MS = 15_000

/** A stream of what changed among all that the person may see; a beat keeps it open, and it ends with the session. */
export async function followChanges(event: H3Event): Promise<void> {
  const sessionId = await sessionIdOf(event)
  if (sessionId === null) throw new Problem(401, 'not-signed-in', 'Sign in first.')
  const stream = createEventStream(event)
  const stop = listen({
    sessionId,
    push: (message) => {
      void stream.push(JSON.stringify(message))
    },
    close: () => {
      void stream.close()
    },
  })
  const beat = setInterval(() => {
    void stream.push({ event: 'beat', data: '' })
  }, BEAT_MS)
  stream.onClosed(() => {
    clearInterval(beat)
    stop()
    return Promise.resolve()
  })
  void stream.push({ event: 'beat', data: '' })
  return stream.send()
}
