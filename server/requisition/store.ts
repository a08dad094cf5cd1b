import { and, eq, sql } from 'drizzle-orm'
import { type DecimalText } from '#core/base/decimal'
import { type Draft } from '#core/requisition/draft'
import { type AttachmentKind } from '#core/requisition/rules'
import { type RequisitionState } from '#core/requisition/moves'
import { attachment, remark, requisition, requisitionCoding, requisitionLine } from '../db/schema/requisition'
import { type Tx } from '../db/client'
import { rows } from '../db/rows'

function headOf(draft: Draft) {
  return {
    kind: draft.kind,
    title: draft.title,
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
  await tx
    .insert(requisition)
    .values({
      id,
      ...headOf(draft),
      ownerId: who.ownerId,
      raisedById: who.raisedById,
      createdAt: now,
      changedAt: now,
      stateSince: now,
    })
  await insertLines(tx, id, draft)
}

/** Writes a draft over what was kept of it. Its row must be locked. */
export async function updateDraft(tx: Tx, id: string, draft: Draft, now: Date): Promise<void> {
  await tx
    .update(requisition)
    .set({ ...headOf(draft), changedAt: now, version: sql`${requisition.version} + 1` })
    .where(eq(requisition.id, id))
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
  const found = await rows<{ id: string }>(
    tx,
    sql`
    select id from requisition_line where id = any(${sql.param(lineIds as string[])}::uuid[]) and requisition_id <> ${id}`,
  )
  return found.map((f) => f.id)
}

export async function deleteRequisition(tx: Tx, id: string): Promise<void> {
  await tx.delete(requisition).where(and(eq(requisition.id, id), eq(requisition.state, 'draft')))
}

/** Freezes on the lines what their worth was computed with: tax rate, currency factor, reclaimable share. */
export async function freezeLines(
  tx: Tx,
  id: string,
  lines: readonly { id: string; toBase: DecimalText; taxRate: DecimalText; reclaimables: readonly DecimalText[] }[],
): Promise<void> {
  const flat = lines.map((l) => ({ i: l.id, b: l.toBase, t: l.taxRate }))
  const shares = lines.flatMap((l) => l.reclaimables.map((r, p) => ({ i: l.id, p, r })))
  await tx.execute(sql`
    with frozen as (
      update requisition_line l set to_base = f.b, tax_rate = f.t
      from json_to_recordset(${JSON.stringify(flat)}::json) as f(i uuid, b numeric, t numeric) where l.id = f.i and l.requisition_id = ${id})
    update requisition_coding c set reclaimable = f.r
    from json_to_recordset(${JSON.stringify(shares)}::json) as f(i uuid, p int, r numeric) where c.line_id = f.i and c.position = f.p`)
}

export async function setState(tx: Tx, id: string, state: RequisitionState, now: Date): Promise<void> {
  await tx
    .update(requisition)
    .set({ state, stateSince: now, changedAt: now, version: sql`${requisition.version} + 1` })
    .where(eq(requisition.id, id))
}

export async function setReminded(tx: Tx, id: string, now: Date): Promise<void> {
  await tx.update(requisition).set({ remindedAt: now }).where(eq(requisition.id, id))
}

export async function setOwner(tx: Tx, id: string, ownerId: string, now: Date): Promise<void> {
  await tx
    .update(requisition)
    .set({ ownerId, changedAt: now, version: sql`${requisition.version} + 1` })
    .where(eq(requisition.id, id))
}

export async function setSent(
  tx: Tx,
  id: string,
  s: {
    number: string
    state: RequisitionState
    fiscalYear: number
    period: number
    amount: DecimalText
    round: number
    sentDraft: Draft
    accountingDate: string | null
    title: string
    shipToId: string | null
    now: Date
  },
): Promise<void> {
  await tx
    .update(requisition)
    .set({
      number: s.number,
      state: s.state,
      fiscalYear: s.fiscalYear,
      period: s.period,
      amount: s.amount,
      round: s.round,
      sentDraft: s.sentDraft,
      accountingDate: s.accountingDate,
      title: s.title,
      shipToId: s.shipToId,
      sentAt: s.now,
      stateSince: s.now,
      changedAt: s.now,
      version: sql`${requisition.version} + 1`,
    })
    .where(eq(requisition.id, id))
}

/** Moves what stands on issued orders, on trays and cancelled of lines, by differences. */
export async function moveQuantities(
  tx: Tx,
  moves: readonly { lineId: string; ordered?: DecimalText; onTray?: DecimalText; cancelled?: DecimalText }[],
): Promise<void> {
  if (moves.length === 0) return
  const flat = moves.map((m) => ({ i: m.lineId, o: m.ordered ?? '0', t: m.onTray ?? '0', c: m.cancelled ?? '0' }))
  await tx.execute(sql`
    update requisition_line l set ordered = l.ordered + f.o, on_tray = l.on_tray + f.t, cancelled = l.cancelled + f.c
    from json_to_recordset(${JSON.stringify(flat)}::json) as f(i uuid, o numeric, t numeric, c numeric) where l.id = f.i`)
}

export async function insertAttachment(
  tx: Tx,
  a: {
    id: string
    requisitionId: string
    fileHash: string
    name: string
    kind: AttachmentKind
    forSupplier: boolean
    addedById: string
    addedAt: Date
  },
): Promise<void> {
  await tx.insert(attachment).values(a)
}

export async function setAttachment(
  tx: Tx,
  id: string,
  a: { kind: AttachmentKind; forSupplier: boolean },
): Promise<void> {
  await tx.update(attachment).set(a).where(eq(attachment.id, id))
}

export async function deleteAttachment(tx: Tx, id: string): Promise<void> {
  await tx.delete(attachment).where(eq(attachment.id, id))
}

export async function insertRemark(
  tx: Tx,
  r: {
    requisitionId: string
    personId: string
    at: Date
    kind: 'question' | 'answer' | 'reason' | 'wish'
    text: string
    decisionId?: string
  },
): Promise<void> {
  await tx.insert(remark).values(r)
}

export async function deleteRemarksOf(tx: Tx, decisionId: string): Promise<void> {
  await tx.delete(remark).where(eq(remark.decisionId, decisionId))
}

export async function answerQuestions(tx: Tx, requisitionId: string, now: Date): Promise<string[]> {
  const asked = await rows<{ personId: string }>(
    tx,
    sql`
    update remark set answered_at = ${now.toISOString()} where requisition_id = ${requisitionId} and kind = 'question' and answered_at is null
    returning person_id as "personId"`,
  )
  return [...new Set(asked.map((a) => a.personId))]
}
