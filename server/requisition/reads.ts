import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { SplitMethod } from '#core/base/split'
import { completeDraft, type Draft, type DraftLine, type LineDiscount } from '#core/requisition/draft'
import type { RequisitionState } from '#core/requisition/moves'
import type { DocumentHead } from '../document/kind'
import { UTC } from '../db/moments'
import type { Tx } from '../db/client'
import { row, rows } from '../db/rows'
import { REQUISITIONS } from './visible'

/** A requisition's line as it is kept: the draft's line and what became of it. */
export interface RequisitionLineRow extends DraftLine {
  readonly toBase: DecimalText | null
  readonly taxRate: DecimalText | null
  readonly ordered: DecimalText
  readonly onTray: DecimalText
  readonly cancelled: DecimalText
  readonly reclaimables: readonly (DecimalText | null)[]
}

/** A requisition whole: its document's head, what was written, and what became of it. */
export interface RequisitionRow extends DocumentHead {
  readonly kind: 'requisition'
  readonly state: RequisitionState
  readonly raisedById: string
  readonly fiscalYear: number | null
  readonly period: number | null
  readonly amount: DecimalText | null
  readonly round: number
  readonly sentDraft: Draft | null
  readonly sentAt: string | null
  readonly stateSince: string
  readonly changedAt: string
  readonly remindedAt: string | null
  readonly draft: Draft
  readonly lines: readonly RequisitionLineRow[]
}

interface HeadRow extends Omit<Draft, 'lines' | 'kind'>, Omit<RequisitionRow, 'draft' | 'lines' | 'kind'> {
  readonly kindCode: string
}
interface LineRow extends Omit<RequisitionLineRow, 'codings' | 'reclaimables' | 'discount'> {
  readonly discountOf: LineDiscount['of'] | null
  readonly discountValue: DecimalText | null
  readonly codings: { budgetLineId: string; value: DecimalText | null; reclaimable: DecimalText | null }[]
}

/** A requisition whole; `lock` takes its row for the rest of the transaction. Null where there is none. */
export async function findRequisition(tx: Tx, id: string, lock = false): Promise<RequisitionRow | null> {
  const head = await row<HeadRow>(
    tx,
    sql`
    select d.id, d.number, d.version, d.state, q.kind_code as "kindCode", d.title, q.department_id as "departmentId",
      q.raised_by_id as "raisedById",
      d.owner_id as "ownerId", q.ship_to_id as "shipToId", q.address, q.ship_to_detail as "shipToDetail", q.attention,
        q.telephone, q.instructions,
      q.need_by::text as "needBy", q.why, q.over_budget_reason as "overBudgetReason", q.justification,
        q.note_to_supplier as "noteToSupplier",
      q.note_internal as "noteInternal", q.job_id as "jobId", q.own, q.read_warnings as "readWarnings",
        ${UTC('q.reminded_at')} as "remindedAt", q.accounting_date::text as "accountingDate",
        q.fiscal_year as "fiscalYear", q.period,
      q.amount, q.round, q.sent_draft as "sentDraft", ${UTC('d.sent_at')} as "sentAt",
        ${UTC('d.state_since')} as "stateSince",
      ${UTC('d.changed_at')} as "changedAt"
    from document d join requisition q on q.id = d.id where d.id = ${id} ${lock ? sql`for update of d, q` : sql``}`,
  )
  if (head === null) return null
  const found = await rows<LineRow & { splitMethod: SplitMethod }>(
    tx,
    sql`
    select l.id, l.item_id as "itemId", l.category_id as "categoryId", l.description,
      l.second_description as "secondDescription", l.quantity, l.unit,
      l.unit_price as "unitPrice", l.list_price as "listPrice", l.price_with_tax as "priceWithTax",
        l.discount_of as "discountOf", l.discount as "discountValue",
      l.note_to_supplier as "noteToSupplier", l.note_internal as "noteInternal", l.job_id as "jobId", l.own,
        l.price_base as "priceBase", l.currency, l.to_base as "toBase", l.tax_code as "taxCode",
        l.tax_rate as "taxRate",
      l.supplier_id as "supplierId", l.supplier_part as "supplierPart", l.split_method as "splitMethod", l.ordered,
        l.on_tray as "onTray",
      l.cancelled, coalesce((
        select json_agg(json_build_object('budgetLineId', c.budget_line_id, 'value', trim_scale(c.value)::text,
          'reclaimable', trim_scale(c.reclaimable)::text) order by c.position)
        from requisition_coding c where c.line_id = l.id), '[]') as codings
    from requisition_line l where l.requisition_id = ${id} order by l.position`,
  )
  const lines = found.map(({ discountOf, discountValue, ...l }): RequisitionLineRow => ({
    ...l,
    discount: discountOf === null || discountValue === null ? null : { of: discountOf, value: discountValue },
    codings: l.codings.map(({ budgetLineId, value }) => ({ budgetLineId, value })),
    reclaimables: l.codings.map((c) => c.reclaimable),
  }))
  const draft: Draft = {
    kind: head.kindCode,
    title: head.title,
    departmentId: head.departmentId,
    shipToId: head.shipToId,
    address: head.address,
    shipToDetail: head.shipToDetail,
    attention: head.attention,
    telephone: head.telephone,
    instructions: head.instructions,
    needBy: head.needBy,
    why: head.why,
    overBudgetReason: head.overBudgetReason,
    justification: head.justification,
    noteToSupplier: head.noteToSupplier,
    noteInternal: head.noteInternal,
    jobId: head.jobId,
    own: head.own,
    readWarnings: head.readWarnings,
    accountingDate: head.accountingDate,
    lines: lines.map(toDraftLine),
  }
  return {
    id: head.id,
    kind: 'requisition',
    title: head.title,
    number: head.number,
    version: head.version,
    state: head.state,
    raisedById: head.raisedById,
    ownerId: head.ownerId,
    fiscalYear: head.fiscalYear,
    period: head.period,
    amount: head.amount,
    round: head.round,
    sentDraft: head.sentDraft === null ? null : completeDraft(head.sentDraft),
    remindedAt: head.remindedAt,
    sentAt: head.sentAt,
    stateSince: head.stateSince,
    changedAt: head.changedAt,
    draft,
    lines,
  }
}

function toDraftLine(l: RequisitionLineRow): DraftLine {
  return {
    id: l.id,
    itemId: l.itemId,
    categoryId: l.categoryId,
    description: l.description,
    secondDescription: l.secondDescription,
    quantity: l.quantity,
    unit: l.unit,
    unitPrice: l.unitPrice,
    listPrice: l.listPrice,
    priceWithTax: l.priceWithTax,
    priceBase: l.priceBase,
    discount: l.discount,
    currency: l.currency,
    taxCode: l.taxCode,
    supplierId: l.supplierId,
    supplierPart: l.supplierPart,
    noteToSupplier: l.noteToSupplier,
    noteInternal: l.noteInternal,
    jobId: l.jobId,
    own: l.own,
    splitMethod: l.splitMethod,
    codings: l.codings,
  }
}

/**
 * What a person owns that was sent and is not over, in departments; oldest first, the one order in which they are
 * locked.
 */
export function listOwned(tx: Tx, ownerId: string, departments: 'all' | readonly string[]): Promise<{ id: string }[]> {
  const part = departments === 'all' ? sql`` : sql`and department_id = any(${sql.param([...departments])}::uuid[])`
  return rows(
    tx,
    sql`
    select id from ${REQUISITIONS} r where owner_id = ${ownerId} ${part}
      and state in ('in approval', 'approved', 'part ordered', 'ordered', 'sent back', 'withdrawn') order by id`,
  )
}
