import { and, eq, isNotNull } from 'drizzle-orm'
import { dayOf } from '#core/base/day'
import { openDatabase, type Db } from '../server/db/client'
import { inTransaction } from '../server/db/transaction'
import { document } from '../server/db/schema/document'
import { orderRevision } from '../server/db/schema/order'
import { requisition } from '../server/db/schema/requisition'
import { dressDecision } from '../server/decide/dress-decision'
import { sendMail } from '../server/mail/send-mail'
import { fileOrder } from '../server/order/file-order'
import { sendOrder } from '../server/order/send-order'
import { hashPassword } from '../server/people/password'
import { takeTasks } from '../server/queue/take-tasks'
import type { TaskData } from '../server/queue/tasks'
import { loadOrganisation } from '../server/settings/load-organisation'
import { describeHallamere } from './world/organisation'
import { History } from './history'
import { layKeepsakes } from './keepsakes'

/** The one password of all demo people. */
export const DEMO_PASSWORD = 'sea-salt-and-patience'
const TIME_ZONE = 'Europe/London'

/** Enters the organisation alone: for tests that make their own requests. */
export async function loadBareHallamere(db: Db, now: Date): Promise<void> {
  const passwordHash = await hashPassword(DEMO_PASSWORD)
  await inTransaction(db, (tx) => loadOrganisation(tx, describeHallamere(dayOf(now, TIME_ZONE), passwordHash)))
}

/**
 * Loads the demo: the organisation, and some eighty requests with all that came of them, played through
 * the use cases as of `now`. What they leave behind for later (PDFs, mail) is carried out at once, mail
 * through the post office that REKKO_SMTP_URL names, unless `posts` says that nobody reads it.
 */
export async function loadDemo(
  databaseUrl: string,
  now: Date,
  past = 62,
  posts = true,
): Promise<{ requisitions: number; orders: number; mails: number }> {
  const { db, pool } = openDatabase(databaseUrl, 4)
  try {
    await loadBareHallamere(db, now)
    const tasks = takeTasks()
    const mails: string[] = []
    const sendings: string[] = []
    const carryOut = async () => {
      for (let next = tasks.shift(); next !== undefined; next = tasks.shift()) {
        if (next.name === 'file-order') {
          const { orderId, revision } = next.data as TaskData['file-order']
          const [issued] = await db
            .select({ at: orderRevision.issuedAt })
            .from(orderRevision)
            .where(and(eq(orderRevision.orderId, orderId), eq(orderRevision.revision, revision)))
          if (issued !== undefined) await fileOrder(db, orderId, revision, issued.at)
        } else if (next.name === 'send-mail') mails.push((next.data as TaskData['send-mail']).mailId)
        else if (next.name === 'send-order') sendings.push((next.data as TaskData['send-order']).sendingId)
      }
    }
    await new History(db, now, TIME_ZONE, carryOut).play(past)
    await layKeepsakes(db, now, TIME_ZONE)
    await carryOut()
    // Mail of decisions made a moment ago waits like any other; by its own clock it is due.
    const due = new Date(now.getTime() + 60_000)
    for (let i = 0; posts && i < mails.length; i += 4)
      await Promise.all(mails.slice(i, i + 4).map((mailId) => sendMail(db, mailId, () => due, dressDecision)))
    for (let i = 0; posts && i < sendings.length; i += 4)
      await Promise.all(sendings.slice(i, i + 4).map((sendingId) => sendOrder(db, sendingId, () => now)))
    return {
      requisitions: await db.$count(requisition),
      orders: await db.$count(document, and(eq(document.kind, 'order'), isNotNull(document.number))),
      mails: mails.length + sendings.length,
    }
  } finally {
    await pool.end()
  }
}
