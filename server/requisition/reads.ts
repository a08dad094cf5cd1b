import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { OrderWords } from '#core/order/kept-words'
import type { Part } from '#core/people/rights'
import { completeDraft, type Draft, type DraftLine, type LineDiscount } from '#core/requisition/draft'
import type { RequisitionState } from '#core/requisition/moves'
import type { DocumentHead } from '../document/kind'
import { UTC } from '../db/moments'
import type { Tx } from '../db/client'
import { named, read, readOne, type Row } from '../db/read'
import { document } from '../db/schema/document'
import { requisition, requisitionCoding, requisitionLine } from '../db/schema/requisition'
import { inPart, requisitions } from '../requisition/visible'

const d = named(document, 'd')
const q = named(requisition, 'q')
const c = named(requisitionCoding, 'c')
const l = named(requisitionLine, 'l')
const r = requisitions('r')

/** A requisition's line as it is kept: the draft's line and what became of it. */
export interface RequisitionLineRow extends DraftLine {
  readonly perBase: DecimalText | null
  readonly taxRate: DecimalText | null
  readonly ordered: DecimalText
  readonly onTray: DecimalText
  readonly cancelled: DecimalText
  readonly reclaimables: readonly (DecimalText | null)[]
  /** What a year end did to each coding. */
  readonly atYearEnd: readonly AtYearEnd[]
}

/** What a year end did to a coding: carried it to a period of its budget line's year, or released it. */
export interface AtYearEnd {
  readonly carriedTo: number | null
  readonly released: boolean
}

/** A requisition whole: its document's head, what was written, and what became of it. */
export interface RequisitionRow extends DocumentHead {
  readonly kind: 'requisition'
  /** It is a direct order, which asks for what it orders itself; its state is that of an order. */
  readonly isDirect: boolean
  readonly state: RequisitionState
  readonly raisedById: string
  readonly fiscalYear: number | null
  readonly period: number | null
  readonly amount: DecimalText | null
  readonly round: number
  readonly sentDraft: Draft | null
  readonly sentFiles: readonly string[]
  readonly sentAt: string | null
  readonly stateSince: string
  readonly changedAt: string
  readonly remindedAt: string | null
  readonly draft: Draft
  readonly lines: readonly RequisitionLineRow[]
}

interface LineRow extends Omit<RequisitionLineRow, 'codings' | 'reclaimables' | 'atYearEnd' | 'discount'> {
  readonly discountOf: LineDiscount['of'] | null
  readonly discountValue: DecimalText | null
  readonly codings: ({ budgetLineId: string; value: DecimalText | null; reclaimable: DecimalText | null } & AtYearEnd)[]
}

const HEAD = {
  id: d.id,
  isDirect: sql<boolean>`${d.kind} <> 'requisition'`,
  number: d.number,
  version: d.version,
  state: sql<RequisitionState>`${d.state}`,
  kindCode: q.kindCode,
  title: d.title,
  departmentId: q.departmentId,
  raisedById: q.raisedById,
  ownerId: d.ownerId,
  ownedBy: d.ownedBy,
  shipToId: q.shipToId,
  address: q.address,
  shipToDetail: q.shipToDetail,
  attention: q.attention,
  telephone: q.telephone,
  instructions: q.instructions,
  needBy: q.needBy,
  why: q.why,
  overBudgetReason: q.overBudgetReason,
  justification: q.justification,
  noteToSupplier: q.noteToSupplier,
  noteInternal: q.noteInternal,
  jobId: q.jobId,
  own: q.own,
  readWarnings: q.readWarnings,
  remindedAt: UTC(q.remindedAt),
  accountingDate: q.accountingDate,
  fiscalYear: q.fiscalYear,
  period: q.period,
  amount: q.amount,
  round: q.round,
  sentDraft: q.sentDraft,
  sentFiles: q.sentFiles,
  sentAt: UTC(d.sentAt),
  stateSince: UTC(d.stateSince),
  changedAt: UTC(d.changedAt),
}
type HeadRow = Row<typeof HEAD>

/** A requisition whole; `lock` takes its row for the rest of the transaction. Null where there is none. */
export async function findRequisition(tx: Tx, id: string, lock = false): Promise<RequisitionRow | null> {
  const [found] = await findRequisitions(tx, [id], lock)
  return found === undefined || found.isDirect ? null : found
}

/** The id of the requisition with a number, however it is written; null where there is none. */
export async function findIdByNumber(tx: Tx, number: string): Promise<string | null> {
  const found = await readOne(
    tx,
    { id: d.id },
    sql`from ${d} where ${d.kind} = 'requisition' and ${d.number} = ${number.toUpperCase()}`,
  )
  return found?.id ?? null
}

/** What was said of a direct order on its tray before it was written on; null where nothing was. */
export async function findOrderWords(tx: Tx, id: string): Promise<OrderWords | null> {
  return (await readOne(tx, { words: q.orderWords }, sql`from ${q} where ${q.id} = ${id}`))?.words ?? null
}

/**
 * Requisitions whole, and direct orders as what they ask for, in the order of their ids, which is that in which `lock`
 * takes their rows; two statements, however many there are. Those that do not exist are left out.
 */
export async function findRequisitions(tx: Tx, ids: readonly string[], lock: boolean): Promise<RequisitionRow[]> {
  // Sent together, and answered in their order: lines are read after the lock.
  const locked = read(
    tx,
    HEAD,
    sql`from ${d} join ${q} on ${q.id} = ${d.id} where ${d.id} = any(${sql.param([...ids])}::uuid[]) order by ${d.id}
      ${lock ? sql`for update of d, q` : sql``}`,
  )
  const ofLines = read(
    tx,
    {
      requisitionId: l.requisitionId,
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
      discountOf: l.discountOf,
      discountValue: l.discount,
      noteToSupplier: l.noteToSupplier,
      noteInternal: l.noteInternal,
      jobId: l.jobId,
      own: l.own,
      priceBase: l.priceBase,
      currency: l.currency,
      perBase: l.perBase,
      taxCode: l.taxCode,
      taxRate: l.taxRate,
      supplierId: l.supplierId,
      supplierPart: l.supplierPart,
      needBy: l.needBy,
      splitMethod: l.splitMethod,
      ordered: l.ordered,
      onTray: l.onTray,
      cancelled: l.cancelled,
      codings: sql<LineRow['codings']>`coalesce((
        select json_agg(json_build_object('budgetLineId', ${c.budgetLineId}, 'value', trim_scale(${c.value})::text,
          'reclaimable', trim_scale(${c.reclaimable})::text, 'carriedTo', ${c.carriedTo}, 'released', ${c.released})
          order by ${c.position})
        from ${c} where ${c.lineId} = ${l.id}), '[]')`,
    },
    sql`from ${l} where ${l.requisitionId} = any(${sql.param([...ids])}::uuid[])
      order by ${l.requisitionId}, ${l.position}`,
  )
  const [heads, found] = await Promise.all([locked, ofLines])
  const linesOf = new Map<string, RequisitionLineRow[]>(heads.map((h) => [h.id, []]))
  for (const { requisitionId, discountOf, discountValue, ...l } of found)
    linesOf.get(requisitionId)?.push({
      ...l,
      discount: discountOf === null || discountValue === null ? null : { of: discountOf, value: discountValue },
      codings: l.codings.map(({ budgetLineId, value }) => ({ budgetLineId, value })),
      reclaimables: l.codings.map((c) => c.reclaimable),
      atYearEnd: l.codings.map(({ carriedTo, released }) => ({ carriedTo, released })),
    })
  return heads.map((head) => toRequisition(head, linesOf.get(head.id) ?? []))
}

function toRequisition(head: HeadRow, lines: readonly RequisitionLineRow[]): RequisitionRow {
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
    isDirect: head.isDirect,
    title: head.title,
    number: head.number,
    version: head.version,
    state: head.state,
    raisedById: head.raisedById,
    ownerId: head.ownerId,
    ownedBy: head.ownedBy,
    fiscalYear: head.fiscalYear,
    period: head.period,
    amount: head.amount,
    round: head.round,
    sentDraft: head.sentDraft === null ? null : completeDraft(head.sentDraft),
    sentFiles: head.sentFiles,
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
    needBy: l.needBy,
    noteToSupplier: l.noteToSupplier,
    noteInternal: l.noteInternal,
    jobId: l.jobId,
    own: l.own,
    splitMethod: l.splitMethod,
    codings: l.codings,
  }
}

/**
 * What a person owns and that is not over, in a part of the organisation, drafts too; in the one order in which
 * they are locked.
 */
export function listOwned(
  tx: Tx,
  ownerId: string,
  part: Part,
): Promise<{ id: string; number: string | null; title: string; state: string }[]> {
  return read(
    tx,
    { id: r.id, number: r.number, title: r.title, state: r.state },
    sql`from ${r} where ${r.ownerId} = ${ownerId} and ${inPart(part)}
      and ${r.state} in ('draft', 'in approval', 'approved', 'part ordered', 'ordered', 'sent back', 'withdrawn')
      order by ${r.id}`,
  )
}

/** A requisition as it was sent the time before the last; null where it was sent once. */
export async function findEarlierDraft(tx: Tx, id: string): Promise<Draft | null> {
  const found = await readOne(tx, { draft: q.earlierDraft }, sql`from ${q} where ${q.id} = ${id}`)
  return found === null || found.draft === null ? null : completeDraft(found.draft)
}
