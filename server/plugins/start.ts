import { environment } from '../environment'
import { clock, readStartOfClock } from '../clock'
import { database } from '../http/app'
import { log } from '../http/report'
import { requireOrganisation } from '../settings/reads'
import { closeStreams, startHub } from '../live/hub'
import { startQueue } from '../queue/work'

/** What runs beside the HTTP server: the queue's work and the live updates. Fails hard when it cannot start. */
export default function start(nitro: { hooks: { hook: (name: 'close', run: () => Promise<void>) => void } }): void {
  void begin(nitro).catch(end)
  // A port that is taken is told like any other fault and would leave a server behind that nobody can reach.
  process.on('uncaughtException', (error) => {
    if ('syscall' in error && error.syscall === 'listen') end(error)
  })
}

function end(error: unknown): never {
  process.stderr.write(`Rekko cannot start. ${error instanceof Error ? error.message : String(error)}\n`)
  process.exit(1)
}

async function begin(nitro: { hooks: { hook: (name: 'close', run: () => Promise<void>) => void } }): Promise<void> {
  const { databaseUrl, idleMinutes } = environment()
  const { db, pool } = database()
  if (readStartOfClock(process.env) !== null && !(await requireOrganisation(db)).isDemo)
    throw new Error('REKKO_NOW moves the clock, which only a demo may; this organisation is none.')
  const queue = await startQueue(databaseUrl, db, clock, (e) => {
    log.warn({ queue: e.message })
  })
  const hub = startHub(databaseUrl, db, clock, idleMinutes)
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, closeStreams)
  nitro.hooks.hook('close', async () => {
    closeStreams()
    await Promise.all([queue.stop(), hub.stop()])
    await pool.end()
  })
}
