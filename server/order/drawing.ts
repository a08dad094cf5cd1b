import { agreementFor, misfitsOf, type Draw } from '#core/agreement/fit'
import type { Day } from '#core/base/day'
import { zero } from '#core/base/money'
import type { OrderAgreement } from '#core/order/issue'
import { branchesOf } from '#core/people/branch'
import { drawnOn, findAgreement, listOpenAgreementsWith, type AgreementRow } from '../agreement/reads'
import type { Tx } from '../db/client'
import { listUpward } from '../people/place-reads'
import type { OrderRow } from './reads'

/** What of an order's lines decides on what it may draw. */
export interface DrawingLine {
  readonly itemId: string | null
  readonly departmentId: string
}

/** A line that may be ordered, as far as it decides on what it draws. */
export interface LineToDraw extends DrawingLine {
  readonly supplierId: string | null
  readonly currency: string
}

/** The agreement on which each of some lines draws by itself, ordered on a day. */
export async function agreementOfLines(
  tx: Tx,
  lines: readonly LineToDraw[],
  day: Day,
): Promise<(line: LineToDraw) => AgreementRow | null> {
  const supplierIds = [...new Set(lines.flatMap((l) => l.supplierId ?? []))]
  const agreements = await listOpenAgreementsWith(tx, supplierIds, day)
  if (agreements.length === 0) return () => null
  const bySupplier = new Map(supplierIds.map((id) => [id, agreements.filter((a) => a.supplierId === id)]))
  const branches = branchesOf(await listUpward(tx))
  return ({ supplierId, currency, itemId, departmentId }) => {
    const own = bySupplier.get(supplierId ?? '')
    if (own === undefined) return null
    const on = agreementFor(own, {
      ...{ supplierId, currency, day },
      ...{ branches: [branches.get(departmentId) ?? [departmentId]], itemIds: [itemId] },
    })
    return own.find((a) => a.id === on?.id) ?? null
  }
}

/** An agreement with what of it an order's verdict rests on. */
export interface Drawing {
  readonly agreement: AgreementRow
  readonly facts: OrderAgreement
}

/** What an order would draw on an agreement for, on a day: that of its issue. */
export async function drawOf(
  tx: Tx,
  { supplierId, currency }: Pick<OrderRow, 'supplierId' | 'currency'>,
  lines: readonly DrawingLine[],
  day: Day,
): Promise<Draw> {
  const branches = branchesOf(await listUpward(tx))
  return {
    ...{ supplierId, currency, day },
    branches: [...new Set(lines.map((l) => l.departmentId))].map((id) => branches.get(id) ?? [id]),
    itemIds: lines.map((l) => l.itemId),
  }
}

/** The agreement on which a tray draws, with how its lines fit and what stands on it; null where it draws on none. */
export async function findDrawing(
  tx: Tx,
  tray: OrderRow,
  lines: readonly DrawingLine[],
  today: Day,
): Promise<Drawing | null> {
  if (tray.agreementId === null) return null
  const agreement = await findAgreement(tx, tray.agreementId)
  if (agreement === null) return null
  return { agreement, facts: drawingOn(agreement, await drawOf(tx, tray, lines, today)) }
}

/** How a draw fits an agreement, and what stands on it. */
export const drawingOn = (agreement: AgreementRow, draw: Draw): OrderAgreement => ({
  number: agreement.number,
  misfits: misfitsOf(agreement, draw),
  // What is reserved keeps nobody from issuing: it may well be this.
  of: drawnOn(agreement, zero(agreement.currency)),
})
