import { createEventStream, type H3Event } from 'h3'
import { type Context } from '../context'
import { listen } from './hub'

const BEAT_MS = 15_000

/** A stream of what changed among all that the person may see; a beat keeps it open. */
export function followChanges({ actor }: Context, event: H3Event): Promise<void> {
  const stream = createEventStream(event)
  const stop = listen({
    actor,
    push: (change) => {
      void stream.push(JSON.stringify(change))
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
