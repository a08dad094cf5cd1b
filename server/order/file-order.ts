import { randomUUID } from 'node:crypto'
import { channelNamed, CHANNELS } from '../channel/channels'
import type { Tx } from '../db/client'
import { environment } from '../environment'
import { keepFile } from '../files/store'
import { notifyChange } from '../live/notify'
import { enqueue } from '../queue/enqueue'
import { renderOrder } from './render-order'
import { findReach, lockUnfiledRevision } from './sending-reads'
import { insertSending, setFiled } from './sending-store'

/**
 * Makes and keeps the PDF of a sent order and lays it out for its supplier's channel, in one transaction: repeated
 * after
 * a crash, it does what is still to be done and no more.
 */
export async function fileOrder(tx: Tx, orderId: string, revision: number, now: Date): Promise<void> {
  const unfiled = await lockUnfiledRevision(tx, orderId, revision)
  if (unfiled === null) return
  const pdf = await renderOrder(unfiled.snapshot, environment().root)
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
}
