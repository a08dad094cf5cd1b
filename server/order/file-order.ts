import { formatKept, formatDay } from '#shared/words/format'
import { type Tx } from '../db/client'
import { environment } from '../environment'
import { keepFile } from '../files/store'
import { notifyChange } from '../live/notify'
import { postMail } from '../mail/post-mail'
import { listSupplierFiles } from './reads'
import { renderOrder } from './render-order'
import { lockUnfiledRevision, setFiled } from './store'

/**
 * Makes and keeps the PDF of a sent order and lays out the mail that carries it, in one transaction:
 * repeated after a crash, it does what is still to be done and no more.
 */
export async function fileOrder(tx: Tx, orderId: string, revision: number, now: Date): Promise<void> {
  const unfiled = await lockUnfiledRevision(tx, orderId, revision)
  if (unfiled === null) return
  const order = unfiled.snapshot
  const hash = await keepFile(tx, await renderOrder(order, environment().root), 'application/pdf', now)
  const first = order.lines.map((l) => l.needBy).sort()[0]
  const mailId = await postMail(tx, {
    toName: order.supplier.name,
    toAddress: order.supplier.email,
    subject: `Purchase order ${order.number} from ${order.organisation.name}`,
    body: [
      `Dear ${order.supplier.name},`,
      '',
      `please find our purchase order ${order.number} attached: ${order.lines.length} ${order.lines.length === 1 ? 'line' : 'lines'}, ${order.currency} ${formatKept(order.total, order.currency)} with tax,`,
      `to be delivered to ${order.shipTo.name}${first === undefined ? '' : ` by ${formatDay(first, '')}`}.`,
      '',
      'Please quote its number on your delivery note and your invoice.',
      '',
      order.buyer,
      order.organisation.name,
      '',
    ].join('\n'),
    attachments: [{ hash, name: `${order.number}.pdf` }, ...(await listSupplierFiles(tx, orderId))],
    aboutKind: 'order',
    aboutId: orderId,
    notBefore: now,
    now,
  })
  await setFiled(tx, orderId, revision, hash, mailId)
  await notifyChange(tx, { kind: 'order', id: orderId })
}
