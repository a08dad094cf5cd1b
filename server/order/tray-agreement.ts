import { dayOf } from '#core/base/day'
import { listWords } from '#shared/words/format'
import type { AgreementRow } from '../agreement/reads'
import type { Context } from '../context'
import { notFound, refused } from '../http/problem'
import { requireOrganisation } from '../settings/reads'
import { findSupplier } from '../supplier/reads'
import { agreementOfLines } from './drawing'
import { findOrder, type OrderRow } from './reads'
import { setAgreement } from './store'
import { listParts } from './tray-reads'

/**
 * Lets a tray draw on the agreement on which its lines draw by themselves, unless its buyer said on which. Lines that
 * draw on several share no tray: laying more is refused, with which is which. Less is never refused: agreements may
 * have come and gone since the rest was laid, and then it draws on what it drew on.
 */
export async function keepTrayAgreement({ tx, now }: Context, orderId: string, after: 'more' | 'less'): Promise<void> {
  const tray = await findOrder(tx, orderId)
  if (tray === null || tray.agreementSaid) return
  const today = dayOf(now, (await requireOrganisation(tx)).timeZone)
  const { supplierId, currency } = tray
  const parts = (await listParts(tx, [orderId])).map((p) => ({ ...p, supplierId, currency }))
  const agreementOf = await agreementOfLines(tx, parts, today)
  const numbers = [...new Set(parts.map((p) => agreementOf(p)?.number ?? null))]
  if (numbers.length > 1 && after === 'less') return
  if (numbers.length > 1) {
    const says = numbers.map((number) => {
      const lines = parts.filter((p) => (agreementOf(p)?.number ?? null) === number)
      return `${listWords([...new Set(lines.map((l) => `“${l.description}”`))])} on ${number ?? 'none'}`
    })
    throw refused(
      [`The lines of a tray draw on one agreement: here ${listWords(says)}. Lay them on trays of their own.`],
      {},
      'does-not-fit',
    )
  }
  const [first] = parts
  const agreement = first === undefined ? null : agreementOf(first)
  const agreementId = agreement?.id ?? null
  if (agreementId === tray.agreementId) return
  await setAgreement(tx, orderId, { agreementId, agreementSaid: false, ...(await termsOf(tx, tray, agreement)) })
}

/** The terms of payment of an order: what its buyer said, else its agreement's, else its supplier's. */
export async function termsOf(
  tx: Context['tx'],
  order: Pick<OrderRow, 'supplierId' | 'termsKind' | 'termsDays' | 'termsSaid'>,
  agreement: Pick<AgreementRow, 'termsKind' | 'termsDays'> | null,
): Promise<{ termsKind: 'net' | 'month-end'; termsDays: number }> {
  if (order.termsSaid) return { termsKind: order.termsKind, termsDays: order.termsDays }
  if (agreement?.termsKind != null && agreement.termsDays !== null)
    return { termsKind: agreement.termsKind, termsDays: agreement.termsDays }
  const supplier = await findSupplier(tx, order.supplierId)
  if (supplier === null) throw notFound('This supplier')
  return { termsKind: supplier.termsKind, termsDays: supplier.termsDays }
}
