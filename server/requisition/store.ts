import { isDeepStrictEqual } from 'node:util'
import { eq, getTableColumns, inArray, sql } from 'drizzle-orm'
import type { OrderWords } from '#core/order/kept-words'
import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import type { AskedMove } from '#core/requisition/asked-items'
import type { Draft, DraftLine } from '#core/requisition/draft'
import { itemAsked, requisition, requisitionCoding, requisitionLine } from '../db/schema/requisition'
import type { Tx } from '../db/client'
import { sendAlong } from '../db/transaction'
import type { AtYearEnd } from './reads'
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
  await writeLines(
    tx,
    id,
    draft.lines.map((line, position) => ({ line, position })),
  )
}

/**
 * Writes a draft over what was kept of it: of its lines only what changed. What a sending froze on them is forgotten
 * with the first change. Its row must be locked.
 */
export async function updateDraft(tx: Tx, id: string, before: Draft, draft: Draft, now: Date): Promise<void> {
  await touchDocument(tx, id, now, draft.title)
  await tx.update(requisition).set(headOf(draft)).where(eq(requisition.id, id))
  await forgetFrozen(tx, id)
  const { gone, moved, written } = changedLines(before.lines, draft.lines)
  if (gone.length > 0) await tx.delete(requisitionLine).where(inArray(requisitionLine.id, gone))
  if (moved.length > 0)
    await tx.execute(sql`
      update ${l} set ${bare(l.position)} = f.p
      from json_to_recordset(${JSON.stringify(moved)}::json) as f(i uuid, p int) where ${l.id} = f.i`)
  await writeLines(tx, id, written)
}

/** A line with its place. */
interface Placed {
  readonly line: DraftLine
  readonly position: number
}

/** Which lines of a draft are gone, which only stand elsewhere, and which are new or say something else. */
function changedLines(
  before: readonly DraftLine[],
  after: readonly DraftLine[],
): { gone: string[]; moved: { i: string; p: number }[]; written: Placed[] } {
  const kept = new Map(before.map((line, position) => [line.id, { line, position }]))
  const staying = new Set(after.map((line) => line.id))
  const placed = after.map((line, position) => ({ line, position }))
  const written = placed.filter(({ line }) => !isDeepStrictEqual(kept.get(line.id)?.line, line))
  const anew = new Set(written.map(({ line }) => line.id))
  return {
    gone: before.map((line) => line.id).filter((lineId) => !staying.has(lineId)),
    moved: placed
      .filter(({ line, position }) => !anew.has(line.id) && kept.get(line.id)?.position !== position)
      .map(({ line, position }) => ({ i: line.id, p: position })),
    written,
  }
}

/** Takes from a requisition's lines what a sending froze on them. */
async function forgetFrozen(tx: Tx, id: string): Promise<void> {
  await tx.execute(sql`
    with frozen as (update ${l} set ${bare(l.perBase)} = null, ${bare(l.taxRate)} = null
      where ${l.requisitionId} = ${id} and ${l.perBase} is not null returning ${l.id} as line)
    update ${c} set ${bare(c.reclaimable)} = null, ${bare(c.carriedTo)} = null, ${bare(c.released)} = false
    from frozen where ${c.lineId} = frozen.line`)
}

/** Writes lines, over those that are kept under the same ids. */
async function writeLines(tx: Tx, id: string, lines: readonly Placed[]): Promise<void> {
  if (lines.length === 0) return
  const rows = lines.map(({ line, position }) => ({
    id: line.id,
    requisitionId: id,
    position,
    itemId: line.itemId,
    categoryId: line.categoryId,
    description: line.description,
    secondDescription: line.secondDescription,
    quantity: line.quantity,
    unit: line.unit,
    unitPrice: line.unitPrice,
    listPrice: line.listPrice,
    priceWithTax: line.priceWithTax,
    priceBase: line.priceBase,
    discountOf: line.discount?.of ?? null,
    discount: line.discount?.value ?? null,
    currency: line.currency,
    taxCode: line.taxCode,
    supplierId: line.supplierId,
    supplierPart: line.supplierPart,
    needBy: line.needBy,
    noteToSupplier: line.noteToSupplier,
    noteInternal: line.noteInternal,
    jobId: line.jobId,
    own: line.own,
    splitMethod: line.splitMethod,
  }))
  const columns = getTableColumns(requisitionLine)
  const over = Object.keys(rows[0] ?? {}).map((name) => {
    const column = columns[name as keyof typeof columns]
    return [name, sql`excluded.${bare(column)}`] as const
  })
  await tx
    .insert(requisitionLine)
    .values(rows)
    .onConflictDoUpdate({ target: requisitionLine.id, set: Object.fromEntries(over) })
  const ids = rows.map((r) => r.id)
  await tx.delete(requisitionCoding).where(inArray(requisitionCoding.lineId, ids))
  const codings = lines.flatMap(({ line }) =>
    line.codings.map((c, position) => ({ lineId: line.id, position, budgetLineId: c.budgetLineId, value: c.value })),
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

/** Writes lines of a sent requisition over themselves: how much, and who pays, with what is frozen of that. */
export async function rewriteLines(
  tx: Tx,
  lines: readonly (Pick<DraftLine, 'id' | 'quantity' | 'splitMethod' | 'codings'> & {
    readonly reclaimables: readonly (DecimalText | null)[]
    readonly atYearEnd: readonly AtYearEnd[]
  })[],
): Promise<void> {
  const flat = lines.map((x) => ({ i: x.id, q: x.quantity, m: x.splitMethod }))
  await tx.execute(sql`
    update ${l} set ${bare(l.quantity)} = f.q, ${bare(l.splitMethod)} = f.m
    from json_to_recordset(${JSON.stringify(flat)}::json) as f(i uuid, q numeric, m text) where ${l.id} = f.i`)
  await tx.delete(requisitionCoding).where(
    inArray(
      requisitionCoding.lineId,
      lines.map((x) => x.id),
    ),
  )
  const codings = lines.flatMap((x) =>
    x.codings.map(({ budgetLineId, value }, position) => ({
      ...{ lineId: x.id, position, budgetLineId, value, reclaimable: x.reclaimables[position] ?? null },
      ...(x.atYearEnd[position] ?? {}),
    })),
  )
  if (codings.length > 0) await tx.insert(requisitionCoding).values(codings)
}

/** Keeps what a change made while it was decided on: the round that began, and the draft as it is sent now. */
export async function setChanged(
  tx: Tx,
  id: string,
  now: {
    readonly round: number
    readonly amount: DecimalText
    readonly sentDraft: Draft
    readonly earlierDraft: Draft | null
  },
): Promise<void> {
  await tx.update(requisition).set(now).where(eq(requisition.id, id))
}

/** Freezes on the lines what their worth was computed with: tax rate, exchange rate, reclaimable share. */
export async function freezeLines(
  tx: Tx,
  id: string,
  lines: readonly { id: string; perBase: DecimalText; taxRate: DecimalText; reclaimables: readonly DecimalText[] }[],
): Promise<void> {
  const flat = lines.map((l) => ({ i: l.id, b: l.perBase, t: l.taxRate }))
  const shares = lines.flatMap((l) => l.reclaimables.map((r, p) => ({ i: l.id, p, r })))
  await sendAlong(
    tx,
    tx.execute(sql`
    with frozen as (
      update ${l} set ${bare(l.perBase)} = f.b, ${bare(l.taxRate)} = f.t
      from json_to_recordset(${JSON.stringify(flat)}::json) as f(i uuid, b numeric, t numeric) where ${l.id} = f.i
        and ${l.requisitionId} = ${id})
    update ${c} set ${bare(c.reclaimable)} = f.r, ${bare(c.carriedTo)} = null, ${bare(c.released)} = false
    from json_to_recordset(${JSON.stringify(shares)}::json) as f(i uuid, p int, r numeric) where ${c.lineId} = f.i
      and ${c.position} = f.p`),
  )
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
  await sendAlong(tx, tx.update(requisition).set(sent).where(eq(requisition.id, id)))
}

/** Takes back what a sending fixed: it is written on. */
export async function setUnsent(tx: Tx, id: string): Promise<void> {
  await tx
    .update(requisition)
    .set({ fiscalYear: null, period: null, amount: null, sentDraft: null, sentFiles: [] })
    .where(eq(requisition.id, id))
}

/** What was said of a direct order on its tray, kept while it is written on. */
export async function setOrderWords(tx: Tx, id: string, orderWords: OrderWords): Promise<void> {
  await tx.update(requisition).set({ orderWords }).where(eq(requisition.id, id))
}

/** Who wrote it; of a direct order, which its buyer owns, for whom it was written. */
export async function setRaisedBy(tx: Tx, id: string, raisedById: string): Promise<void> {
  await tx.update(requisition).set({ raisedById }).where(eq(requisition.id, id))
}

/** Moves by how many sent lines departments asked for items. */
export async function moveAsked(tx: Tx, moves: readonly AskedMove[]): Promise<void> {
  if (moves.length === 0) return
  await sendAlong(
    tx,
    tx
      .insert(itemAsked)
      .values(moves.map(({ by, ...of }) => ({ ...of, lines: by })))
      .onConflictDoUpdate({
        target: [itemAsked.itemId, itemAsked.departmentId],
        set: { lines: sql`${itemAsked.lines} + excluded.${bare(itemAsked.lines)}` },
      }),
  )
}

/**
 * Moves what stands on issued orders, on trays and cancelled of lines, by differences. What is laid on a tray is put
 * aside no more.
 */
export async function moveQuantities(
  tx: Tx,
  moves: readonly { lineId: string; ordered?: DecimalText; onTray?: DecimalText; cancelled?: DecimalText }[],
): Promise<void> {
  if (moves.length === 0) return
  const flat = moves.map((m) => ({ i: m.lineId, o: m.ordered ?? '0', t: m.onTray ?? '0', c: m.cancelled ?? '0' }))
  await sendAlong(
    tx,
    tx.execute(sql`
    update ${l} set ${bare(l.ordered)} = ${l.ordered} + f.o, ${bare(l.onTray)} = ${l.onTray} + f.t,
      ${bare(l.cancelled)} = ${l.cancelled} + f.c,
      ${bare(l.asideUntil)} = case when f.t > 0 then null else ${l.asideUntil} end
    from json_to_recordset(${JSON.stringify(flat)}::json) as f(i uuid, o numeric, t numeric, c numeric)
      where ${l.id} = f.i`),
  )
}

/** Of a direct order: what it orders more is asked for by it. */
export async function raiseAsked(
  tx: Tx,
  moves: readonly { readonly lineId: string; readonly ordered: DecimalText }[],
): Promise<void> {
  const flat = moves.map((m) => ({ i: m.lineId, o: m.ordered }))
  await tx.execute(sql`
    update ${l} set ${bare(l.quantity)} = ${l.quantity} + f.o
    from json_to_recordset(${JSON.stringify(flat)}::json) as f(i uuid, o numeric) where ${l.id} = f.i and f.o > 0`)
}

/** Puts what is open of lines aside until a day; null: aside no more. */
export async function setAside(tx: Tx, lineIds: readonly string[], until: Day | null, reason: string): Promise<void> {
  await tx
    .update(requisitionLine)
    .set({ asideUntil: until, asideReason: reason })
    .where(inArray(requisitionLine.id, [...lineIds]))
}
