import { and, eq, inArray, isNull, or, sql } from 'drizzle-orm'
import type { AttachedAs } from '#core/requisition/rules'
import { attachment, document, remark, type RemarkKind } from '../db/schema/document'
import type { Tx } from '../db/client'
import { bare, named } from '../db/read'
import { sendAlong } from '../db/transaction'

/** Enters a new document; its kind's own row follows in the same transaction. */
export async function insertDocument(
  tx: Tx,
  d: {
    readonly id: string
    readonly kind: string
    readonly title: string
    readonly ownerId: string
    readonly now: Date
  },
): Promise<void> {
  const { now, ...rest } = d
  await tx.insert(document).values({ ...rest, createdAt: now, changedAt: now, stateSince: now })
}

/** What a change of a document does to its head besides: the next version, and when it changed. */
const changed = (now: Date) => ({ changedAt: now, version: sql`${document.version} + 1` })

/** Writes that something of a document changed, with its title where that did. */
export async function touchDocument(tx: Tx, id: string, now: Date, title?: string): Promise<void> {
  await sendAlong(
    tx,
    tx
      .update(document)
      .set({ ...changed(now), ...(title === undefined ? {} : { title }) })
      .where(eq(document.id, id)),
  )
}

export async function setState(tx: Tx, id: string, state: string, now: Date): Promise<void> {
  await setStates(tx, [{ id, state }], now)
}

/** Moves documents, each to its state, in one statement. */
export async function setStates(
  tx: Tx,
  moves: readonly { readonly id: string; readonly state: string }[],
  now: Date,
): Promise<void> {
  if (moves.length === 0) return
  const flat = moves.map(({ id, state }) => ({ i: id, s: state }))
  const d = named(document, 'd')
  await sendAlong(
    tx,
    tx.execute(sql`
      update ${d} set ${bare(d.state)} = f.s, ${bare(d.stateSince)} = ${now.toISOString()}::timestamptz,
        ${bare(d.changedAt)} = ${now.toISOString()}::timestamptz, ${bare(d.version)} = ${d.version} + 1
      from json_to_recordset(${JSON.stringify(flat)}::json) as f(i uuid, s text) where ${d.id} = f.i`),
  )
}

/** Gives a document to another owner; who it was is kept until it is sent again. */
export async function setOwner(tx: Tx, id: string, ownerId: string, now: Date): Promise<void> {
  const { ownerId: owner, ownedBy } = document
  await tx
    .update(document)
    .set({
      ownerId,
      ownedBy: sql`array_append(array_remove(${ownedBy}, ${owner}), ${owner})`,
      ...changed(now),
    })
    .where(eq(document.id, id))
}

/** Makes a document that never left its author one of another kind, with all that hangs on it. */
export async function turnInto(
  tx: Tx,
  id: string,
  into: { readonly kind: string; readonly title: string; readonly ownerId: string; readonly now: Date },
): Promise<void> {
  const { now, ...rest } = into
  await tx
    .update(document)
    .set({ ...rest, ownedBy: [], ...changed(now) })
    .where(and(eq(document.id, id), eq(document.state, 'draft')))
}

/** Whoever owned a document before it is sent plays no part in who decides on it. */
export async function forgetOwners(tx: Tx, id: string): Promise<void> {
  await tx.update(document).set({ ownedBy: [] }).where(eq(document.id, id))
}

/** A document leaves its author: under its number, in its new state. */
export async function setLeft(
  tx: Tx,
  id: string,
  as: { readonly number: string; readonly state: string; readonly title?: string; readonly now: Date },
): Promise<void> {
  const { now, ...rest } = as
  await sendAlong(
    tx,
    tx
      .update(document)
      .set({ ...rest, ownedBy: [], sentAt: now, stateSince: now, ...changed(now) })
      .where(eq(document.id, id)),
  )
}

/** Locks a document for the rest of the transaction; what it guards is read after it. */
export async function lockDocument(tx: Tx, id: string): Promise<void> {
  await tx.select({ id: document.id }).from(document).where(eq(document.id, id)).for('update')
}

/** Takes away what never left its author, with all that hangs on it. */
export async function deleteDraft(tx: Tx, id: string): Promise<void> {
  await tx.delete(document).where(and(eq(document.id, id), eq(document.state, 'draft')))
}

export async function insertAttachment(tx: Tx, a: typeof attachment.$inferInsert): Promise<void> {
  await tx.insert(attachment).values(a)
}

export async function setAttachment(
  tx: Tx,
  id: string,
  a: { readonly kind: AttachedAs; readonly forSupplier: boolean },
): Promise<void> {
  await tx.update(attachment).set(a).where(eq(attachment.id, id))
}

export async function deleteAttachment(tx: Tx, id: string): Promise<void> {
  await tx.delete(attachment).where(eq(attachment.id, id))
}

export async function insertRemark(
  tx: Tx,
  r: {
    readonly documentId: string
    readonly personId: string
    readonly at: Date
    readonly kind: RemarkKind
    readonly text: string
    readonly decisionId?: string
    readonly toId?: string | null
    readonly lineId?: string
  },
): Promise<void> {
  await tx.insert(remark).values(r)
}

export async function deleteRemarksOf(tx: Tx, decisionId: string): Promise<void> {
  await tx.delete(remark).where(eq(remark.decisionId, decisionId))
}

/** Nobody wants an answer any more to what was asked about lines. */
export async function dropQuestions(tx: Tx, lineIds: readonly string[], now: Date): Promise<void> {
  const theirs = and(inArray(remark.lineId, [...lineIds]), eq(remark.kind, 'question'), isNull(remark.answeredAt))
  await sendAlong(tx, tx.update(remark).set({ answeredAt: now }).where(theirs))
}

/** Marks every open question of a document to a person as answered; returns who asked them. */
export async function answerQuestions(
  tx: Tx,
  { id: documentId, ownerId }: { readonly id: string; readonly ownerId: string },
  personId: string,
  now: Date,
): Promise<string[]> {
  const theirs = ownerId === personId ? or(isNull(remark.toId), eq(remark.toId, personId)) : eq(remark.toId, personId)
  const asked = await tx
    .update(remark)
    .set({ answeredAt: now })
    .where(and(eq(remark.documentId, documentId), eq(remark.kind, 'question'), isNull(remark.answeredAt), theirs))
    .returning({ personId: remark.personId })
  return [...new Set(asked.map((a) => a.personId))]
}
