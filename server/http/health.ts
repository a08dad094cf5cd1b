import { connect } from 'node:net'
import { setResponseStatus, type H3Event } from 'h3'
import type { Context } from '../context'
import { ping, pingQueue } from '../db/ping'
import { environment } from '../environment'

/** Whether process, database, queue and mail work; 503 when the database does not. */
export async function readHealth(
  { tx }: Context,
  event: H3Event,
): Promise<{ ok: boolean; process: string; database: string; queue: string; mail: string }> {
  const [database, queue, mail] = await Promise.all([
    works(() => ping(tx)),
    works(() => pingQueue(tx)),
    works(() => reach(new URL(environment().smtpUrl))),
  ])
  const ok = database === 'works' && queue === 'works'
  if (!ok) setResponseStatus(event, 503)
  return { ok, process: 'works', database, queue, mail }
}

/** What does not answer within this counts as not reached: whoever watches over Rekko waits no longer. */
const ANSWERS_WITHIN_MS = 1500

async function works(check: () => Promise<unknown>): Promise<string> {
  let late: NodeJS.Timeout | undefined
  const tooLate = new Promise<never>((_, reject) => {
    late = setTimeout(() => {
      reject(new Error('no answer'))
    }, ANSWERS_WITHIN_MS)
  })
  try {
    await Promise.race([check(), tooLate])
    return 'works'
  } catch {
    return 'cannot be reached'
  } finally {
    clearTimeout(late)
  }
}

function reach(url: URL): Promise<void> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host: url.hostname, port: Number(url.port || '25'), timeout: ANSWERS_WITHIN_MS })
    socket.once('connect', () => {
      socket.end()
      resolve()
    })
    socket.once('error', reject)
    socket.once('timeout', () => {
      socket.destroy()
      reject(new Error('timeout'))
    })
  })
}
