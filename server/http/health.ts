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
  const database = await works(() => ping(tx))
  const queue = await works(() => pingQueue(tx))
  const mail = await works(() => reach(new URL(environment().smtpUrl)))
  const ok = database === 'works' && queue === 'works'
  if (!ok) setResponseStatus(event, 503)
  return { ok, process: 'works', database, queue, mail }
}

async function works(check: () => Promise<unknown>): Promise<string> {
  try {
    await check()
    return 'works'
  } catch {
    return 'cannot be reached'
  }
}

function reach(url: URL): Promise<void> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host: url.hostname, port: Number(url.port || '25'), timeout: 2000 })
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
