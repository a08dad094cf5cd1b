import type { AgreementRow } from '../agreement/reads'
import { partOf } from '#core/people/rights'
import type { OpenLine } from '#core/order/consolidate'
import type { Proposal, ProposalOptions } from '#core/order/propose'
import { listPriceSteps } from '../catalogue/reads'
import type { Context } from '../context'
import { inWorkshop } from '../files/workshop'
import { requireTerms } from '../settings/reads'
import { takenOff } from './compute-tray'
import { agreementOfLines } from './drawing'
import { listOpenLines, listOrderTerms, type OpenLineRow } from './proposal-reads'

/** The oldest so many lines are proposed at once; the others come up as these are ordered. */
const MOST_LINES = 20_000

/** What lines that wait are put together to, with what it was made of. */
export interface ComputedProposal {
  readonly proposal: Proposal
  /** The lines it is made of, by id. */
  readonly rows: ReadonlyMap<string, OpenLineRow>
  readonly isAll: boolean
  readonly agreementOf: (row: OpenLineRow) => AgreementRow | null
  readonly perBase: ReadonlyMap<string, string>
  readonly baseCurrency: string
  readonly today: string
}

/** Puts together the lines that wait in the actor's part, or those of them that are picked; nothing is written. */
export async function computeProposal(
  { tx, now, actor }: Context,
  options: ProposalOptions,
  picks: (row: OpenLineRow, line: OpenLine) => boolean = () => true,
): Promise<ComputedProposal> {
  const { organisation, today, ...terms } = await requireTerms(tx, now)
  const perBase = new Map(terms.perBase)
  const { baseCurrency } = organisation
  const found = await listOpenLines(tx, partOf(actor.grants, 'order'), today, MOST_LINES + 1)
  const oldest = found.slice(0, MOST_LINES)
  const agreementOf = await agreementOfLines(tx, oldest, today)
  const picked = oldest
    .map((row) => ({ row, line: { ...openLineOf(row), agreementId: agreementOf(row)?.id ?? null } }))
    .filter(({ row, line }) => picks(row, line))
  const idsOf = (of: (l: OpenLineRow) => string | null) => [...new Set(picked.flatMap(({ row }) => of(row) ?? []))]
  const proposal = await inWorkshop(
    'propose-orders',
    picked.map((p) => p.line),
    options,
    {
      ...{ today, baseCurrency, perBase },
      prices: await listPriceSteps(
        tx,
        idsOf((l) => l.itemId),
      ),
      suppliers: await listOrderTerms(
        tx,
        idsOf((l) => l.supplierId),
      ),
    },
  )
  const rows = new Map(picked.map(({ row }) => [row.id, row]))
  return { proposal, rows, isAll: found.length <= MOST_LINES, agreementOf, perBase, baseCurrency, today }
}

export function openLineOf(row: OpenLineRow): Omit<OpenLine, 'agreementId'> {
  return {
    requisitionLineId: row.id,
    requisitionId: row.requisitionId,
    number: row.number,
    sentOn: row.sentOn,
    supplierId: row.supplierId,
    departmentId: row.departmentId,
    quantity: row.open,
    requested: row.requested,
    itemId: row.itemId,
    description: row.description,
    secondDescription: row.secondDescription,
    noteToSupplier: row.noteToSupplier,
    unit: row.unit,
    unitPrice: row.unitPrice,
    isByHand: row.isByHand,
    adjustments: takenOff(row),
    priceBase: row.priceBase,
    currency: row.currency,
    taxCode: row.taxCode,
    supplierPart: row.supplierPart,
    needBy: row.needBy,
    shipToId: row.shipToId,
  }
}
