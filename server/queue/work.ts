import PgBoss from 'pg-boss'
import { cronOf } from '#core/base/every'
import { routeAgain } from '../approval/route-again'
import { listOpenRoutes, listWaitingSince } from '../approval/reads'
import { remindLate } from '../approval/remind-late'
import { layChain } from '../audit/lay-chain'
import type { Db } from '../db/client'
import { inTransaction } from '../db/transaction'
import { dressDecision } from '../decide/dress-decision'
import { DECIDABLES } from '../kinds'
import { checkIntegrity } from '../look-back/check-integrity'
import { listLaidAtWork } from '../lists/laid-store'
import { layRows } from '../lists/lay-file'
import { lookAtRows } from '../lists/look-at-laid'
import { takeFile, takeFileBack } from '../lists/take-laid'
import { listOverdueMail } from '../mail/reads'
import { sendMail } from '../mail/send-mail'
import { fileOrder } from '../order/file-order'
import { issueApproved } from '../order/issue-approved'
import { putChangeInForce } from '../order/put-change-in-force'
import { sendOrder } from '../order/send-order'
import { listWaitingSendings } from '../order/sending-reads'
import { beginRuns, orderAtOnce } from '../ordering/begin-runs'
import { runRule } from '../ordering/run-rule'
import { REKKO } from '../people/actor'
import { repeatAll, repeatTemplate } from '../regulars/repeat-templates'
import { mailApproved } from '../requisition/mail-approved'
import { beginLetters, writeLetter } from '../upkeep/daily-letters'
import { raiseAdded } from '../job/raise-added'
import { sendByItself } from '../requisition/send-by-itself'
import { keepSuppliers } from '../upkeep/keep-suppliers'
import { keepAgreements } from '../upkeep/keep-agreements'
import { tellShares } from '../upkeep/tell-shares'
import { purge } from '../upkeep/purge'
import { isPaused, keepRun } from '../upkeep/run-scheduled'
import { deleteUnreferenced } from '../upkeep/store'
import { tellEnded } from '../upkeep/tell-ended'
import { enqueue, enqueueAgain, useQueue } from './enqueue'
import { isScheduled, SCHEDULE, SCHEDULED } from './schedule'
import { WORKERS, type AskedFor, type Task, type TaskData } from './tasks'

type Runs = { readonly [T in Task]: (data: TaskData[T]) => Promise<void> }

/** Nothing is late within a day. */
const DAY_MS = 86_400_000

/** What each task does. Whatever it does can be done again. */
function runsOf(db: Db, clock: () => Date): Runs {
  const MOST_SWEPT = 200
  return {
    'send-mail': ({ mailId }) => sendMail(db, mailId, clock, dressDecision),
    'mail-approved': async (of) => {
      await mailApproved(db, of, clock())
      await orderAtOnce(db, of.requisitionId)
    },
    'issue-approved': (of) => issueApproved(db, of, clock()),
    'put-change-in-force': (of) => putChangeInForce(db, of, clock()),
    'send-order': ({ sendingId }) => sendOrder(db, sendingId, clock),
    'file-order': ({ orderId, revision }) => fileOrder(db, orderId, revision, clock()),
    'begin-ordering': () => beginRuns(db, clock()),
    'order-by-rule': (of) => runRule(db, of, clock()),
    // What waits and has no task any more, because its server died, is put into the queue again.
    sweep: async () => {
      for (const mailId of await listOverdueMail(db, clock(), MOST_SWEPT))
        await enqueueAgain(db, 'send-mail', { mailId }, mailId)
      for (const sendingId of await listWaitingSendings(db, MOST_SWEPT))
        await enqueueAgain(db, 'send-order', { sendingId }, sendingId)
      for (const { id: fileId, state, byId } of await listLaidAtWork(db)) {
        if (state === 'reading') await enqueueAgain(db, 'lay-file', { fileId }, fileId)
        else if (state === 'being looked at') await enqueueAgain(db, 'look-at-file', { fileId }, fileId)
        else if (state === 'being taken') await enqueueAgain(db, 'take-file', { fileId }, fileId)
        else await enqueueAgain(db, 'take-file-back', { fileId, byId }, fileId)
      }
    },
    'route-all-again': async () => {
      for (const { documentKind: kind, documentId: id } of await listOpenRoutes(db))
        await enqueue(db, 'route-again', { kind, id })
    },
    'route-again': async ({ kind: name, id }) => {
      const kind = DECIDABLES[name]
      if (kind === undefined) return
      await inTransaction(db, async (tx) => {
        const document = await kind.find(tx, id, true)
        if (document !== null) await routeAgain({ tx, now: clock(), actor: REKKO }, kind, document)
      })
    },
    'remind-all-late': async () => {
      for (const { documentKind: kind, documentId: id } of await listWaitingSince(db, new Date(+clock() - DAY_MS)))
        await enqueue(db, 'remind-late', { kind, id })
    },
    'remind-late': async ({ kind: name, id }) => {
      const kind = DECIDABLES[name]
      if (kind === undefined) return
      await inTransaction(db, async (tx) => {
        const document = await kind.find(tx, id, true)
        if (document !== null) await remindLate({ tx, now: clock(), actor: REKKO }, kind, document)
      })
    },
    'lay-chain': () => layChain(db),
    'check-integrity': async ({ byId }) => {
      await layChain(db)
      await inTransaction(db, (tx) => checkIntegrity({ tx, now: clock(), actor: REKKO }, byId ?? null))
    },
    'repeat-templates': () => repeatAll(db, clock()),
    'repeat-template': ({ templateId }) => inTransaction(db, (tx) => repeatTemplate(tx, templateId, clock())),
    'send-repeated': ({ requisitionId }) => sendByItself(db, requisitionId, 'rhythm', clock()),
    'raise-parts': (added) => inTransaction(db, (tx) => raiseAdded(tx, added, clock())),
    'send-parts': ({ requisitionId }) => sendByItself(db, requisitionId, 'parts', clock()),
    'daily-letters': () => beginLetters(db, clock()),
    'daily-letter': ({ personId }) => inTransaction(db, (tx) => writeLetter(tx, personId, clock())),
    'keep-suppliers': () => inTransaction(db, (tx) => keepSuppliers({ tx, now: clock(), actor: REKKO })),
    'keep-agreements': () => inTransaction(db, (tx) => keepAgreements({ tx, now: clock(), actor: REKKO })),
    'tell-shares': () => inTransaction(db, (tx) => tellShares({ tx, now: clock(), actor: REKKO })),
    'lay-file': ({ fileId }) => layRows(db, fileId),
    'look-at-file': ({ fileId }) => lookAtRows(db, fileId, clock()),
    'take-file': ({ fileId }) => takeFile(db, fileId, clock()),
    'take-file-back': ({ fileId, byId }) => takeFileBack(db, fileId, byId, clock()),
    purge: () => inTransaction(db, (tx) => purge(tx, clock())),
    'drop-files': ({ hashes }) => inTransaction(db, (tx) => deleteUnreferenced(tx, hashes)),
    'task-ended': () => Promise.resolve(),
  }
}

/** Starts the queue: every server takes tasks from it, each task goes to one. Returns what stops it. */
export async function startQueue(
  url: string,
  db: Db,
  clock: () => Date,
  onError: (e: Error) => void,
): Promise<{ boss: PgBoss; stop: () => Promise<void> }> {
  const boss = new PgBoss({
    connectionString: url,
    migrate: false,
    max: 3,
    schema: 'pgboss',
    maintenanceIntervalSeconds: 20,
  })
  boss.on('error', onError)
  const runs = runsOf(db, clock)
  try {
    await boss.start()
    useQueue(boss)
    for (const task of Object.keys(runs) as Task[]) {
      if (task === 'task-ended') continue
      for (let i = 0; i < (WORKERS[task] ?? 1); i += 1)
        await workOn(boss, task, kept(db, clock, task, runs[task] as (data: unknown) => Promise<void>))
    }
    await boss.work('task-ended', { pollingIntervalSeconds: 2, includeMetadata: true }, async (jobs) => {
      for (const job of jobs)
        await inTransaction(db, (tx) => tellEnded({ tx, now: clock(), actor: REKKO }, job.id, job.data, job.output))
    })
    for (const task of SCHEDULED) await boss.schedule(task, cronOf(SCHEDULE[task].every))
  } catch (error) {
    // What was begun of it would go on beside the next try.
    await boss.stop({ graceful: false, wait: false }).catch(() => undefined)
    throw error
  }
  // What a server that died left behind is looked for once at the start; where that fails, it is within a minute.
  await runs.sweep({}).catch(onError)
  return { boss, stop: () => boss.stop({ graceful: true, timeout: 4000, wait: true }) }
}

/** A task that is done by itself as well: not while it is paused, and how it went is kept. */
function kept(db: Db, clock: () => Date, task: Task, run: (data: unknown) => Promise<void>) {
  if (!isScheduled(task)) return run
  return async (data: unknown) => {
    const byId = (data as AskedFor | null)?.byId ?? null
    if (await isPaused(db, task, byId)) return
    const beganAt = clock()
    const keep = (error: string | null) =>
      inTransaction(db, (tx) => keepRun({ tx, now: clock(), actor: REKKO }, { task, beganAt, error, byId }))
    try {
      await run(data)
    } catch (error) {
      await keep(error instanceof Error ? error.message : String(error))
      throw error
    }
    await keep(null)
  }
}

/** Takes tasks in batches. One that fails is tried again by itself; the others of its batch are done. */
async function workOn(boss: PgBoss, task: Task, run: (data: unknown) => Promise<void>): Promise<void> {
  await boss.work(
    task,
    // A batch is done before its tasks expire.
    { pollingIntervalSeconds: 0.5, batchSize: WORKERS[task] === undefined ? 20 : 5 },
    async (jobs) => {
      for (const job of jobs) {
        try {
          await run(job.data)
        } catch (error) {
          // A job that was failed is no longer active, so that the batch's end does not complete it.
          await boss.fail(task, job.id, { message: error instanceof Error ? error.message : String(error) })
        }
      }
    },
  )
}
