import { randomUUID } from 'node:crypto'
import { channelNamed, CHANNELS } from '../channel/channels'
import type { Db } from '../db/client'
import { inTransaction } from '../db/transaction'
import { environment } from '../environment'
import { keepFile } from '../files/store'
import { inWorkshop } from '../files/workshop'
import { notifyChange } from '../live/notify'
import { enqueue } from '../queue/enqueue'
import { paperOfOrder } from './order-paper'
import { ublOf } from './ubl-of'
import { findReach, findUnfiledRevision, lockUnfiledRevision } from './sending-reads'
import { insertSending, setFiled } from './sending-store'

/**
 * Makes the PDF of a sent order, then keeps it and lays it out for its supplier's channel in one transaction: repeated
 * after a crash, it does what is still to be done and no more. Nothing is locked while the PDF is made.
 */
export async function fileOrder(db: Db, orderId: string, revision: number, now: Date): Promise<void> {
  const unfiled = await findUnfiledRevision(db, orderId, revision)
  if (unfiled === null) return
  const { snapshot } = unfiled
  const paper = { ...paperOfOrder(snapshot), files: [ublOf(snapshot)] }
  const pdf = await inWorkshop('make-pdf', paper, environment().root)
  await inTransaction(db, async (tx) => {
    if (!(await lockUnfiledRevision(tx, orderId, revision))) return
    await setFiled(tx, orderId, revision, await keepFile(tx, pdf, 'application/pdf', now))
    const { channel, email } = await findReach(tx, orderId)
    const name = channelNamed(channel)
    const id = randomUUID()
    await insertSending(tx, {
      id,
      orderId,
      revision,
      channel: name,
      address: CHANNELS[name].addressOf({ email }) ?? '',
      reference: CHANNELS[name].referenceOf(id),
      laidAt: now,
    })
    await enqueue(tx, 'send-order', { sendingId: id })
    await notifyChange(tx, { kind: 'order', id: orderId })
  })
}
