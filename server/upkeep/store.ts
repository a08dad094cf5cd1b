import { and, eq, inArray, isNotNull, isNull, lt, or, sql, type SQL } from 'drizzle-orm'
import type { Told } from '#core/told/told'
import { notice, session, signInAttempt } from '../db/schema/people'
import { idempotency } from '../db/schema/http'
import type { Tx } from '../db/client'
import { named } from '../db/read'
import { attachment } from '../db/schema/document'
import { itemPicture } from '../db/schema/catalogue'
import { file } from '../db/schema/file'
import { laidFile } from '../db/schema/lists'
import { orderRevision } from '../db/schema/order'
import { supplier, supplierDocument } from '../db/schema/supplier'
import { outgoingMail } from '../db/schema/mail'

const a = named(attachment, 'a')
const v = named(orderRevision, 'v')
const s = named(supplier, 's')
const lf = named(laidFile, 'lf')
const sd = named(supplierDocument, 'sd')
const ip = named(itemPicture, 'ip')
const m = named(outgoingMail, 'm')

/** Sessions that ended, or were seen last, before a moment. */
export async function deleteSessions(tx: Tx, before: Date): Promise<void> {
  await tx.delete(session).where(or(lt(session.endedAt, before), lt(session.seenAt, before)))
}

/** Notices that were read, and told before a moment. */
export async function deleteReadNotices(tx: Tx, before: Date): Promise<void> {
  await tx.delete(notice).where(and(isNotNull(notice.readAt), lt(notice.at, before)))
}

/** Letters that left, or were given up, before a moment. */
export async function deleteLetters(tx: Tx, before: Date): Promise<void> {
  await tx.delete(outgoingMail).where(or(lt(outgoingMail.sentAt, before), lt(outgoingMail.cancelledAt, before)))
}

/** Files for lists that somebody laid aside before a moment, and neither took nor left. */
export async function deleteLaid(tx: Tx, before: Date): Promise<void> {
  await tx.delete(laidFile).where(and(lt(laidFile.at, before), isNull(laidFile.seq)))
}

export async function deleteIdempotency(tx: Tx, before: Date): Promise<void> {
  await tx.delete(idempotency).where(lt(idempotency.at, before))
}

export async function deleteSignInTries(tx: Tx, before: Date): Promise<void> {
  await tx.delete(signInAttempt).where(lt(signInAttempt.windowFrom, before))
}

const UNREFERENCED = sql`not exists (select 1 from ${a} where ${a.fileHash} = ${file.hash})
  and not exists (select 1 from ${v} where ${v.pdfHash} = ${file.hash})
  and not exists (select 1 from ${s} where ${s.taxFormHash} = ${file.hash})
  and not exists (select 1 from ${lf} where ${lf.fileHash} = ${file.hash})
  and not exists (select 1 from ${ip} where ${ip.fileHash} = ${file.hash})
  and not exists (select 1 from ${sd} where ${sd.fileHash} = ${file.hash})
  and not exists (select 1 from ${m}, jsonb_array_elements(${m.attachments}) f where f ->> 'hash' = ${file.hash})`

/** Those of some files that no attachment, order, supplier or mail refers to. */
export const deleteUnreferenced = (tx: Tx, hashes: readonly string[]): Promise<void> =>
  deleteFiles(tx, inArray(file.hash, [...hashes]))

/** Files that were kept before a moment and that nothing refers to. */
export const deleteOldUnreferenced = (tx: Tx, before: Date): Promise<void> => deleteFiles(tx, lt(file.keptAt, before))

/** Locked first: whoever keeps the same bytes meanwhile is waited for, and then seen. */
async function deleteFiles(tx: Tx, which: SQL): Promise<void> {
  const locked = await tx
    .select({ hash: file.hash })
    .from(file)
    .where(and(which, UNREFERENCED))
    .orderBy(file.hash)
    .for('update')
  const hashes = locked.map((f) => f.hash)
  if (hashes.length > 0) await tx.delete(file).where(and(inArray(file.hash, hashes), UNREFERENCED))
}

/** Nobody tries to send this mail any more; returns the code of what it would have told. */
export async function giveUpMail(tx: Tx, id: string, now: Date): Promise<Told['code'] | null> {
  const [mail] = await tx
    .update(outgoingMail)
    .set({ cancelledAt: now })
    .where(and(eq(outgoingMail.id, id), isNull(outgoingMail.sentAt)))
    .returning({ told: outgoingMail.told })
  return mail?.told.code ?? null
}
