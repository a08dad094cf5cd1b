import PgBoss from 'pg-boss'
import { type Actor } from '../people/actor'
import { inTransaction, type Db } from '../db/client'
import { fileOrder } from '../order/file-order'
import { listOverdueMail } from '../mail/store'
import { sendMail } from '../mail/send-mail'
import { listOpenRoutes } from '../approval/reads'
import { repeatTemplates, sendRepeated } from '../regulars/repeat-templates'
import { routeAgain } from '../requisition/route-again'
import { useQueue } from './enqueue'
import { type Task, type TaskData } from './tasks'

const REKKO: Actor = { id: '', name: 'Rekko', locale: 'en-GB', grants: [] }

/** Starts the queue: every server takes tasks from it, each task goes to one. Returns what stops it. */
export async function startQueue(
  url: string,
  db: Db,
  clock: () => Date,
  onError: (e: Error) => void,
): Promise<{ boss: PgBoss; stop: () => Promise<void> }> {
  const boss = new PgBoss({ connectionString: url, migrate: false, max: 3, schema: 'pgboss' })
  boss.on('error', onError)
  await boss.start()
  useQueue(boss)
  // Tasks come in batches. One that fails is tried again with its whole batch, where those done do nothing.
  const work = <T extends Task>(task: T, run: (data: TaskData[T]) => Promise<void>) =>
    boss.work<TaskData[T]>(task, { pollingIntervalSeconds: 0.5, batchSize: 20 }, async (jobs) => {
      const failed: unknown[] = []
      for (const job of jobs) {
        try {
          await run(job.data)
        } catch (error) {
          failed.push(error)
        }
      }
      if (failed.length > 0) throw failed[0]
    })
  await work('send-mail', ({ mailId }) => sendMail(db, mailId, clock))
  await work('file-order', ({ orderId, revision }) =>
    inTransaction(db, (tx) => fileOrder(tx, orderId, revision, clock())),
  )
  await work('route-again', () => routeAllAgain(db, clock))
  await work('sweep-mail', () => sweepMail(db, clock))
  await work('repeat-templates', () => repeatTemplates(db, clock))
  await work('send-repeated', ({ requisitionId }) => sendRepeated(db, requisitionId, clock()))
  await boss.schedule('sweep-mail', '* * * * *')
  await boss.schedule('route-again', '1 * * * *')
  await boss.schedule('repeat-templates', '11 * * * *')
  // Mail of a server that died may lie in a task that nobody works on any more: look once at the start.
  await sweepMail(db, clock)
  return { boss, stop: () => boss.stop({ graceful: true, timeout: 4000, wait: true }) }
}

async function sweepMail(db: Db, clock: () => Date): Promise<void> {
  for (const id of await listOverdueMail(db, clock(), 200)) {
    try {
      await sendMail(db, id, clock)
    } catch {
      return
    }
  }
}

async function routeAllAgain(db: Db, clock: () => Date): Promise<void> {
  for (const { documentKind, documentId } of await listOpenRoutes(db)) {
    if (documentKind === 'requisition')
      await inTransaction(db, (tx) => routeAgain({ tx, now: clock(), actor: REKKO }, documentId))
  }
}
