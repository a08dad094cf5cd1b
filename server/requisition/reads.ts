import { sql } from 'drizzle-orm'
import { type DecimalText } from '#core/base/decimal'
import { type SplitMethod } from '#core/base/split'
import { completeDraft, type Draft, type DraftLine, type LineDiscount } from '#core/requisition/draft'
import { type AttachmentKind } from '#core/requisition/rules'
import { type RequisitionState } from '#core/requisition/moves'
import { type AttachmentView } from '#shared/contract/requisition'
import { type Tx } from '../db/client'
import { row, rows } from '../db/rows'

/** A requisition's line as it is kept: the draft's line and what became of it. */
export interface RequisitionLineRow extends DraftLine {
  readonly toBase: DecimalText | null
  readonly taxRate: DecimalText | null
  readonly ordered: DecimalText
  readonly onTray: DecimalText
  readonly cancelled: DecimalText
  readonly reclaimables: readonly (DecimalText | null)[]
}

export interface RequisitionRow {
  readonly id: string
  readonly number: string | null
  readonly version: number
  readonly state: RequisitionState
  readonly raisedById: string
  readonly ownerId: string
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

interface HeadRow extends Omit<Draft, 'lines'>, Omit<RequisitionRow, 'draft' | 'lines'> {}
interface LineRow extends Omit<RequisitionLineRow, 'codings' | 'reclaimables' | 'discount'> {
  readonly discountOf: LineDiscount['of'] | null
  readonly discountValue: DecimalText | null
  readonly codings: { budgetLineId: string; value: DecimalText | null; reclaimable: DecimalText | null }[]
}

const UTC = (column: string) => sql.raw(`to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`)

/** A requisition whole; `lock` takes its row for the rest of the transaction. Null where there is none. */
export async function findRequisition(tx: Tx, id: string, lock = false): Promise<RequisitionRow | null> {
  const head = await row<HeadRow>(
    tx,
    sql`
    select r.id, r.number, r.version, r.state, r.kind, r.title, r.department_id as "departmentId", r.raised_by_id as "raisedById",
      r.owner_id as "ownerId", r.ship_to_id as "shipToId", r.address, r.ship_to_detail as "shipToDetail", r.attention, r.telephone, r.instructions,
      r.need_by::text as "needBy", r.why, r.over_budget_reason as "overBudgetReason", r.justification, r.note_to_supplier as "noteToSupplier",
      r.note_internal as "noteInternal", r.job_id as "jobId", r.own, r.read_warnings as "readWarnings", ${UTC('r.reminded_at')} as "remindedAt", r.accounting_date::text as "accountingDate", r.fiscal_year as "fiscalYear", r.period,
      r.amount, r.round, r.sent_draft as "sentDraft", ${UTC('r.sent_at')} as "sentAt", ${UTC('r.state_since')} as "stateSince",
      ${UTC('r.changed_at')} as "changedAt"
    from requisition r where r.id = ${id} ${lock ? sql`for update` : sql``}`,
  )
  if (head === null) return null
  const found = await rows<LineRow & { splitMethod: SplitMethod }>(
    tx,
    sql`
    select l.id, l.item_id as "itemId", l.category_id as "categoryId", l.description, l.second_description as "secondDescription", l.quantity, l.unit,
      l.unit_price as "unitPrice", l.list_price as "listPrice", l.price_with_tax as "priceWithTax", l.discount_of as "discountOf", l.discount as "discountValue",
      l.note_to_supplier as "noteToSupplier", l.note_internal as "noteInternal", l.job_id as "jobId", l.own, l.price_base as "priceBase", l.currency, l.to_base as "toBase", l.tax_code as "taxCode", l.tax_rate as "taxRate",
      l.supplier_id as "supplierId", l.supplier_part as "supplierPart", l.split_method as "splitMethod", l.ordered, l.on_tray as "onTray",
      l.cancelled, coalesce((
        select json_agg(json_build_object('budgetLineId', c.budget_line_id, 'value', trim_scale(c.value)::text, 'reclaimable', trim_scale(c.reclaimable)::text) order by c.position)
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
    kind: head.kind,
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

export interface AttachmentRow {
  id: string
  name: string
  kind: AttachmentKind
  forSupplier: boolean
  size: number
  mime: string
  fileHash: string
  addedById: string
  at: string
}
export function listAttachments(tx: Tx, requisitionId: string): Promise<AttachmentRow[]> {
  return rows<AttachmentRow>(
    tx,
    sql`
    select a.id, a.name, a.kind, a.for_supplier as "forSupplier", f.size, f.mime, f.hash as "fileHash", a.added_by_id as "addedById", ${UTC('a.added_at')} as at
    from attachment a join file f on f.hash = a.file_hash where a.requisition_id = ${requisitionId} order by a.added_at, a.id`,
  )
}

export interface RemarkRow {
  id: string
  personId: string
  name: string
  at: string
  kind: 'question' | 'answer' | 'reason' | 'wish'
  text: string
  answered: boolean
}
export function listRemarks(tx: Tx, requisitionId: string): Promise<RemarkRow[]> {
  return rows<RemarkRow>(
    tx,
    sql`
    select m.id, m.person_id as "personId", p.name, ${UTC('m.at')} as at, m.kind, m.text, m.answered_at is not null as answered
    from remark m join person p on p.id = m.person_id where m.requisition_id = ${requisitionId} order by m.at, m.id`,
  )
}

/** An attachment as its page shows it. */
export function viewAttachment({ id, name, kind, size, mime, forSupplier }: AttachmentRow): AttachmentView {
  return { id, name, kind, size, mime, forSupplier }
}

/** The last prices paid for items, newest first, at most six each: from issued orders before this one. */
export function listPaidPrices(
  tx: Tx,
  itemIds: readonly string[],
): Promise<{ itemId: string; unitPrice: DecimalText; currency: string; day: string }[]> {
  return rows(
    tx,
    sql`
    select x."itemId", x."unitPrice", x.currency, x.day from unnest(${sql.param(itemIds as string[])}::uuid[]) as i(id)
    cross join lateral (
      select l.item_id as "itemId", l.unit_price as "unitPrice", o.currency, o.issued_at::date::text as day
      from order_line l join purchase_order o on o.id = l.order_id
      where l.item_id = i.id and o.issued_at is not null order by o.issued_at desc, o.id limit 6) x`,
  )
}

/** What a person owns that was sent and is not over, in departments; oldest first, the one order in which they are locked. */
export function listOwned(tx: Tx, ownerId: string, departments: 'all' | readonly string[]): Promise<{ id: string }[]> {
  const part = departments === 'all' ? sql`` : sql`and department_id = any(${sql.param([...departments])}::uuid[])`
  return rows(
    tx,
    sql`
    select id from requisition where owner_id = ${ownerId} ${part}
      and state in ('in approval', 'approved', 'part ordered', 'ordered', 'sent back', 'withdrawn') order by id`,
  )
}
