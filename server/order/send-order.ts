import type { Told } from '#core/told/told'
import { channelNamed, CHANNELS } from '../channel/channels'
import type { Db, Tx } from '../db/client'
import { inTransaction } from '../db/transaction'
import { environment } from '../environment'
import { findFile } from '../files/store'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { pathOf } from './answer-path'
import { listSupplierFiles, lockWaitingSending } from './sending-reads'
import { markSendingFailed, markSendingSent } from './sending-store'
import { sentName, type OrderSnapshot } from './snapshot'

/**
 * Hands one sending over to its channel, at least once: its row is locked meanwhile, so that no other server sends it
 * too. Throws when the channel does not take it; the queue then tries again.
 */
export async function sendOrder(db: Db, sendingId: string, clock: () => Date): Promise<void> {
  try {
    await inTransaction(db, async (tx) => {
      const s = await lockWaitingSending(tx, sendingId)
      if (s === null) return
      const { name, mailFrom } = await requireOrganisation(tx)
      await CHANNELS[channelNamed(s.channel)].send({
        reference: s.reference,
        from: { name, address: mailFrom },
        to: { name: s.snapshot.supplier.name, address: s.address },
        told: tellOf(s.snapshot, environment().publicUrl + pathOf({ id: s.orderId })),
        files: await filesOf(tx, s.orderId, s.pdfHash, `${sentName(s.snapshot)}.pdf`),
      })
      await markSendingSent(tx, s.id, clock())
      await notifyChange(tx, { kind: 'order', id: s.orderId })
    })
  } catch (error) {
    const said = error instanceof Error ? error.message : String(error)
    await inTransaction(db, (tx) => markSendingFailed(tx, sendingId, said))
    throw error
  }
}

function tellOf(order: OrderSnapshot, answerAt: string): Told {
  if (order.revision > 0)
    return {
      code: 'order-change-sent',
      supplier: order.supplier.name,
      number: order.number,
      revision: order.revision,
      isCancelled: order.isCancelled ?? false,
      organisation: order.organisation.name,
      buyer: order.buyer,
      differences: order.differences ?? [],
      note: order.changeNote ?? '',
      currency: order.currency,
      total: order.total,
      answerAt: order.isCancelled === true ? null : answerAt,
    }
  return {
    code: 'order-sent',
    supplier: order.supplier.name,
    number: order.number,
    organisation: order.organisation.name,
    buyer: order.buyer,
    lines: order.lines.length,
    currency: order.currency,
    total: order.total,
    shipTo: order.shipTo.name,
    firstDay: order.lines.map((l) => l.needBy).sort()[0] ?? null,
    placedAs: order.placedAs ?? null,
    ...(order.isBlanket === true && order.expiresOn !== undefined ? { blanketUntil: order.expiresOn } : {}),
    ...(order.calledFrom === undefined ? {} : { calledFrom: order.calledFrom }),
    answerAt,
  }
}

async function filesOf(
  tx: Tx,
  orderId: string,
  pdfHash: string,
  pdfName: string,
): Promise<{ name: string; mime: string; bytes: Buffer }[]> {
  const files = []
  for (const f of [{ hash: pdfHash, name: pdfName }, ...(await listSupplierFiles(tx, orderId))]) {
    const found = await findFile(tx, f.hash)
    if (found !== null) files.push({ name: f.name, mime: found.mime, bytes: found.bytes })
  }
  return files
}
