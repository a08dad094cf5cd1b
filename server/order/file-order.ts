import type { Db } from '../db/client'
import { inTransaction } from '../db/transaction'
import { environment } from '../environment'
import { keepFile } from '../files/store'
import { inWorkshop } from '../files/workshop'
import { notifyChange } from '../live/notify'
import { laySending } from './lay-sending'
import { paperOfOrder } from './order-paper'
import { ublOf } from './ubl-of'
import { findOrder } from './reads'
import { findUnfiledRevision, lockUnfiledRevision } from './sending-reads'
import { setFiled } from './sending-store'

/**
 * Makes the PDF of an issued order, then keeps it and lays it out for its supplier's channel in one transaction, unless
 * it is kept from its supplier: repeated after a crash, it does what is still to be done and no more. Nothing is locked
 * while the PDF is made.
 */
export async function fileOrder(db: Db, orderId: string, revision: number, now: Date): Promise<void> {
  const unfiled = await findUnfiledRevision(db, orderId, revision)
  if (unfiled === null) return
  const { snapshot } = unfiled
  const page = `${environment().publicUrl}/orders/${orderId}`
  const paper = { ...paperOfOrder(snapshot, page), files: [ublOf(snapshot)] }
  const pdf = await inWorkshop('make-pdf', paper, environment().root)
  await inTransaction(db, async (tx) => {
    if (!(await lockUnfiledRevision(tx, orderId, revision))) return
    await setFiled(tx, orderId, revision, await keepFile(tx, pdf, 'application/pdf', now))
    if ((await findOrder(tx, orderId))?.isSent === true) await laySending(tx, { orderId, revision }, now)
    await notifyChange(tx, { kind: 'order', id: orderId })
  })
}
