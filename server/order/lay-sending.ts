import { randomUUID } from 'node:crypto'
import { channelNamed, CHANNELS } from '../channel/channels'
import type { Tx } from '../db/client'
import { enqueue } from '../queue/enqueue'
import { findReach } from './sending-reads'
import { insertSending } from './sending-store'

/** Lays a sent state out for its supplier's channel, at the address of now, which it returns; a task hands it over. */
export async function laySending(
  tx: Tx,
  { orderId, revision }: { readonly orderId: string; readonly revision: number },
  now: Date,
): Promise<string> {
  const { channel, email } = await findReach(tx, orderId)
  const name = channelNamed(channel)
  const address = CHANNELS[name].addressOf({ email }) ?? ''
  const id = randomUUID()
  const reference = CHANNELS[name].referenceOf(id)
  await insertSending(tx, { ...{ id, orderId, revision, channel: name, address, reference }, laidAt: now })
  await enqueue(tx, 'send-order', { sendingId: id })
  return address
}
