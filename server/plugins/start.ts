import { join } from 'node:path'
import { environment } from '../environment'
import { clock, readStartOfClock } from '../clock'
import { inTransaction } from '../db/transaction'
import { openFirstStart } from '../first-start/open-first-start'
import { database } from '../http/app'
import { isDatabaseAway, log } from '../http/report'
import { requireOrganisation } from '../settings/reads'
import { closeWorkshop, useWorkshop } from '../files/workshop'
import { closeStreams, startHub } from '../live/hub'
import { knowsAnswerAddress, proofWays, takeAnswer } from '../decide/take-answer'
import { closeMail } from '../mail/deliver-mail'
import { listenForMail } from '../mail/take-mail'
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

/** How often a start whose connection was dropped is tried, and the pause in between. */
const MOST_STARTS = 5
const PAUSE_MS = 1000

/** The server answers by now: a connection that the database drops in between ends nothing that people work with. */
async function startAgain<T>(start: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries += 1) {
    try {
      return await start()
    } catch (error) {
      if (tries === MOST_STARTS || !isDatabaseAway(error)) throw error
      log.warn({ start: error instanceof Error ? error.message : String(error) })
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MS))
    }
  }
}

async function begin(nitro: { hooks: { hook: (name: 'close', run: () => Promise<void>) => void } }): Promise<void> {
  const { databaseUrl, root } = environment()
  useWorkshop(join(root, import.meta.dev ? 'server/files/workshop-process.ts' : '.output/server/workshop.mjs'))
  const { db, pool } = database()
  const { publicUrl, answers } = environment()
  const first = await inTransaction(db, (tx) => openFirstStart(tx, publicUrl, clock()))
  // It is for whoever starts the server, and for nobody who reads the log later than a day.
  if (first !== null) process.stdout.write(`No organisation is set up yet. Begin, within a day, at\n${first}\n`)
  if (first === null && readStartOfClock(process.env) !== null && !(await requireOrganisation(db)).isDemo)
    throw new Error('REKKO_NOW moves the clock, which only a demo may; this organisation is none.')
  // Pages hear of changes before the queue's first sweep, which may be long.
  const hub = startHub(databaseUrl, db, clock, environment())
  const queue = await startAgain(() =>
    startQueue(databaseUrl, db, clock, (e) => {
      log.warn({ queue: e.message })
    }),
  )
  const post =
    answers === null
      ? null
      : await listenForMail(answers.port, {
          domain: answers.domain,
          knows: (to) => knowsAnswerAddress(db, to),
          take: (arrived) => takeAnswer(db, arrived, clock, proofWays(answers.relay)),
          onError: (e) => {
            log.warn({ answers: e instanceof Error ? e.message : String(e) })
          },
        })
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, closeStreams)
  nitro.hooks.hook('close', async () => {
    closeStreams()
    await Promise.all([queue.stop(), hub.stop(), post?.stop()])
    closeWorkshop()
    closeMail()
    await pool.end()
  })
}
