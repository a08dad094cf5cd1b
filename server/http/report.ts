import pino from 'pino'
import { sqlState } from '../db/client'
import { Problem } from './problem'

export const log = pino({ level: process.env.REKKO_LOG ?? 'warn', base: null })

/** The database ends, starts, or has no connection left. */
const AWAY = new Set(['57P01', '57P02', '57P03', '53300'])

/** What the driver says, in words alone, of a connection that it lost, could not get or gave up waiting for. */
const LOST = /Connection terminated|timeout exceeded when trying to connect|Query read timeout|not queryable/

/** What may leave of an error: a problem as it is, anything else as one sentence with its cause in the log. */
export function asProblem(error: unknown, where: string): Problem {
  if (error instanceof Problem) return error
  const state = sqlState(error)
  if (state === '22003') return new Problem(422, 'invalid', 'A number is too large to be kept.')
  if (state === '23505') return new Problem(409, 'exists-already', 'This exists already.')
  if (state === '23P01') return new Problem(409, 'exists-already', 'These days overlap with others that exist already.')
  log.error({
    where,
    err:
      error instanceof Error
        ? {
            message: error.message,
            stack: error.stack,
            cause: error.cause instanceof Error ? error.cause.message : undefined,
          }
        : String(error),
  })
  if (state === '57014' || state === '55P03')
    return new Problem(
      503,
      'too-slow',
      'This took too long and was given up; nothing was changed. Try again in a moment.',
    )
  if (isDatabaseAway(error)) {
    return new Problem(
      503,
      'database-away',
      'The database cannot be reached just now; nothing was changed. Try again in a moment.',
    )
  }
  return new Problem(500, 'fault', 'Something went wrong in Rekko; nothing was changed. It has been noted.')
}

/** Whether something failed because the database could not be reached, or dropped the connection. */
export function isDatabaseAway(error: unknown): boolean {
  const state = sqlState(error)
  return state?.startsWith('08') === true || (state !== null && AWAY.has(state)) || isConnectionError(error)
}

function isConnectionError(error: unknown): boolean {
  for (let at: unknown = error; at instanceof Error; at = at.cause) {
    if ('code' in at && (at.code === 'ECONNREFUSED' || at.code === 'ECONNRESET')) return true
    if (LOST.test(at.message)) return true
  }
  return false
}
