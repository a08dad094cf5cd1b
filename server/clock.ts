import { isTrue } from './environment'

/**
 * The moment in `REKKO_NOW`, or null where it is not set. A clock of one's own is for the demo and for tests: it is
 * refused wherever the server is not the demo's. Throws a sentence that says what to set.
 */
export function readStartOfClock(env: Readonly<Record<string, string | undefined>>): Date | null {
  const text = env.REKKO_NOW ?? ''
  if (text === '') return null
  const start = new Date(text)
  if (Number.isNaN(start.getTime()) || !/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}.*(Z|[+-]\d{2}:\d{2})$/.test(text))
    throw new Error('REKKO_NOW is no moment; write it like 2027-04-01T00:30:00Z.')
  if (!isTrue(env.REKKO_DEMO)) throw new Error('REKKO_NOW moves the clock, which only a demo may; take it away.')
  return start
}

/** A clock that shows `start` when it is made and ticks on from there. */
export function tickFrom(start: Date): () => Date {
  const lead = start.getTime() - Date.now()
  return () => new Date(Date.now() + lead)
}

let started: (() => Date) | null = null

/** The one clock of the server: the machine's, or one that started at `REKKO_NOW`. Use cases get its moments. */
export function clock(): Date {
  if (started === null) {
    const start = readStartOfClock(process.env)
    started = start === null ? () => new Date() : tickFrom(start)
  }
  return started()
}
