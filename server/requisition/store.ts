import { eq, sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { Draft } from '#core/requisition/draft'
import { requisition, requisitionCoding, requisitionLine } from '../db/schema/requisition'
import type { Tx } from '../db/client'
import { insertDocument, touchDocument } from '../document/store'
import { bare, named, read } from '../db/read'

const l = named(requisitionLine, 'l')
const c = named(requisitionCoding, 'c')

function headOf(draft: Draft) {
  return {
    kindCode: draft.kind,
    departmentId: draft.departmentId,
    shipToId: draft.shipToId,
    address: draft.address,
    shipToDetail: draft.shipToDetail,
    attention: draft.attention,
    telephone: draft.telephone,
    instructions: draft.instructions,
    needBy: draft.needBy,
    why: draft.why,
    overBudgetReason: draft.overBudgetReason,
    justification: draft.justification,
    noteToSupplier: draft.noteToSupplier,
    noteInternal: draft.noteInternal,
    jobId: draft.jobId,
    own: draft.own,
    readWarnings: [...draft.readWarnings],
    accountingDate: draft.accountingDate,
  }
}

export async function insertRequisition(
  tx: Tx,
  id: string,
  who: { ownerId: string; raisedById: string },
  draft: Draft,
  now: Date,
): Promise<void> {
  await insertDocument(tx, { id, kind: 'requisition', title: draft.title, ownerId: who.ownerId, now })
  await tx.insert(requisition).values({ id, ...headOf(draft), raisedById: who.raisedById })
  await insertLines(tx, id, draft)
}

/** Writes a draft over what was kept of it. Its row must be locked. */
export async function updateDraft(tx: Tx, id: string, draft: Draft, now: Date): Promise<void> {
  await touchDocument(tx, id, now, draft.title)
  await tx.update(requisition).set(headOf(draft)).where(eq(requisition.id, id))
  await tx.delete(requisitionLine).where(eq(requisitionLine.requisitionId, id))
  await insertLines(tx, id, draft)
}

async function insertLines(tx: Tx, id: string, draft: Draft): Promise<void> {
  if (draft.lines.length === 0) return
  await tx.insert(requisitionLine).values(
    draft.lines.map((l, position) => ({
      id: l.id,
      requisitionId: id,
      position,
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
      discountOf: l.discount?.of ?? null,
      discount: l.discount?.value ?? null,
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
    })),
  )
  const codings = draft.lines.flatMap((l) =>
    l.codings.map((c, position) => ({ lineId: l.id, position, budgetLineId: c.budgetLineId, value: c.value })),
  )
  if (codings.length > 0) await tx.insert(requisitionCoding).values(codings)
}

/** Line ids that already belong to another requisition. */
export async function listForeignLines(tx: Tx, id: string, lineIds: readonly string[]): Promise<string[]> {
  const found = await read(
    tx,
    { id: requisitionLine.id },
    sql`from ${requisitionLine} where ${requisitionLine.id} = any(${sql.param(lineIds as string[])}::uuid[])
      and ${requisitionLine.requisitionId} <> ${id}`,
  )
  return found.map((f) => f.id)
}

/** Freezes on the lines what their worth was computed with: tax rate, exchange rate, reclaimable share. */
export async function freezeLines(
  tx: Tx,
  id: string,
  lines: readonly { id: string; perBase: DecimalText; taxRate: DecimalText; reclaimables: readonly DecimalText[] }[],
): Promise<void> {
  const flat = lines.map((l) => ({ i: l.id, b: l.perBase, t: l.taxRate }))
  const shares = lines.flatMap((l) => l.reclaimables.map((r, p) => ({ i: l.id, p, r })))
  await tx.execute(sql`
    with frozen as (
      update ${l} set ${bare(l.perBase)} = f.b, ${bare(l.taxRate)} = f.t
      from json_to_recordset(${JSON.stringify(flat)}::json) as f(i uuid, b numeric, t numeric) where ${l.id} = f.i
        and ${l.requisitionId} = ${id})
    update ${c} set ${bare(c.reclaimable)} = f.r
    from json_to_recordset(${JSON.stringify(shares)}::json) as f(i uuid, p int, r numeric) where ${c.lineId} = f.i
      and ${c.position} = f.p`)
}

export async function setReminded(tx: Tx, id: string, now: Date): Promise<void> {
  await tx.update(requisition).set({ remindedAt: now }).where(eq(requisition.id, id))
}

/** Keeps what a sending fixed: where its reservations stand, and the draft as it was sent. */
export async function setSent(
  tx: Tx,
  id: string,
  sent: {
    readonly fiscalYear: number
    readonly period: number
    readonly amount: DecimalText
    readonly round: number
    readonly sentDraft: Draft
    readonly earlierDraft: Draft | null
    readonly sentFiles: string[]
    readonly accountingDate: string | null
    readonly shipToId: string | null
  },
): Promise<void> {
  await tx.update(requisition).set(sent).where(eq(requisition.id, id))
}

/** Moves what stands on issued orders, on trays and cancelled of lines, by differences. */
export async function moveQuantities(
  tx: Tx,
  moves: readonly { lineId: string; ordered?: DecimalText; onTray?: DecimalText; cancelled?: DecimalText }[],
): Promise<void> {
  if (moves.length === 0) return
  const flat = moves.map((m) => ({ i: m.lineId, o: m.ordered ?? '0', t: m.onTray ?? '0', c: m.cancelled ?? '0' }))
  await tx.execute(sql`
    update ${l} set ${bare(l.ordered)} = ${l.ordered} + f.o, ${bare(l.onTray)} = ${l.onTray} + f.t,
      ${bare(l.cancelled)} = ${l.cancelled} + f.c
    from json_to_recordset(${JSON.stringify(flat)}::json) as f(i uuid, o numeric, t numeric, c numeric)
      where ${l.id} = f.i`)
}
