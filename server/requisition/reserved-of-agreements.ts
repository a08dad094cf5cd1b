import { agreementFor } from '#core/agreement/fit'
import { reservedBy, type OpenPart } from '#core/agreement/ceiling'
import type { Day } from '#core/base/day'
import { zero, type Money } from '#core/base/money'
import { branchesOf } from '#core/people/branch'
import { adjustmentsOf } from '#core/requisition/draft'
import type { AgreementRow } from '../agreement/reads'
import type { Tx } from '../db/client'
import { listUpward } from '../people/place-reads'
import { listOpenDraws, type OpenDrawRow } from './agreement-draw-reads'

/** An open line with the agreement on which it draws by itself. */
export type OpenDraw = OpenDrawRow & { readonly agreementId: string; readonly part: OpenPart }

/**
 * The open lines that draw on some agreements by themselves. All agreements with their suppliers are to be among them,
 * since of several that fit alike none is drawn on. A line is judged on its accounting date, or today where that is
 * past. `apartFrom` is a request that does not count.
 */
export async function openDrawsOn(
  tx: Tx,
  agreements: readonly AgreementRow[],
  today: Day,
  apartFrom: string | null = null,
): Promise<OpenDraw[]> {
  if (agreements.length === 0) return []
  const rows = await listOpenDraws(tx, [...new Set(agreements.map((a) => a.supplierId))], apartFrom)
  if (rows.length === 0) return []
  const branches = branchesOf(await listUpward(tx))
  return rows.flatMap((row): OpenDraw[] => {
    const { accountingDate: day, discountOf, discountValue } = row
    const draw = {
      supplierId: row.supplierId,
      currency: row.currency,
      day: day !== null && day > today ? day : today,
      branches: [branches.get(row.departmentId) ?? [row.departmentId]],
      itemIds: [row.itemId],
    }
    const on = agreementFor(agreements, draw)
    if (on === null) return []
    const discount = discountOf === null || discountValue === null ? null : { of: discountOf, value: discountValue }
    return [{ ...row, agreementId: on.id, part: { ...row, adjustments: adjustmentsOf({ discount }) } }]
  })
}

/** What is sent, not ordered yet, and draws on each agreement by itself; net, in its currency. */
export async function reservedOf(
  tx: Tx,
  agreements: readonly AgreementRow[],
  today: Day,
  apartFrom: string | null = null,
): Promise<(agreement: Pick<AgreementRow, 'id' | 'currency'>) => Money> {
  const draws = await openDrawsOn(tx, agreements, today, apartFrom)
  const byAgreement = new Map<string, OpenPart[]>()
  for (const { agreementId, part } of draws) {
    const parts = byAgreement.get(agreementId)
    if (parts === undefined) byAgreement.set(agreementId, [part])
    else parts.push(part)
  }
  return ({ id, currency }) => {
    const parts = byAgreement.get(id)
    return parts === undefined ? zero(currency) : reservedBy(parts, currency)
  }
}
