import { and, eq, sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { BankDetails } from '#core/supplier/bank'
import type { Standing } from '#core/supplier/record'
import type { WarningMode } from '#core/supplier/warning'
import type { Tx } from '../db/client'
import { bankChange, supplier, supplierContact, supplierDocument } from '../db/schema/supplier'
import type { ContactRow } from './record-reads'

const raised = { version: sql`${supplier.version} + 1` }

export async function writeContacts(tx: Tx, id: string, contacts: readonly ContactRow[]): Promise<void> {
  await tx.delete(supplierContact).where(eq(supplierContact.supplierId, id))
  if (contacts.length > 0)
    await tx.insert(supplierContact).values(contacts.map((c, position) => ({ ...c, supplierId: id, position })))
}

export interface WrittenWarning {
  readonly warning: string | null
  readonly warningMode: WarningMode
  readonly datedWarning: string | null
  readonly warningFrom: Day | null
  readonly warningUntil: Day | null
}
export async function setWarning(tx: Tx, id: string, w: WrittenWarning): Promise<void> {
  await tx
    .update(supplier)
    .set({ ...w, ...raised })
    .where(eq(supplier.id, id))
}

/** Says how a supplier stands from now on, why, and until which day. */
export async function writeStanding(
  tx: Tx,
  id: string,
  to: Standing,
  why: { readonly reason: string; readonly since: Date; readonly until: Day | null },
): Promise<void> {
  await tx
    .update(supplier)
    .set({ standing: to, standingReason: why.reason, standingSince: why.since, standingUntil: why.until, ...raised })
    .where(eq(supplier.id, id))
}

/** Lays a change of bank details aside; what was asked for before is asked for no more. */
export async function layBankChange(
  tx: Tx,
  id: string,
  c: { details: BankDetails; byId: string; at: Date; toldTo: readonly string[] },
): Promise<void> {
  const columns = { details: c.details, byId: c.byId, at: c.at, toldTo: c.toldTo }
  await tx
    .insert(bankChange)
    .values({ supplierId: id, ...columns })
    .onConflictDoUpdate({ target: bankChange.supplierId, set: columns })
}
export async function dropBankChange(tx: Tx, id: string): Promise<void> {
  await tx.delete(bankChange).where(eq(bankChange.supplierId, id))
}
export async function setBank(tx: Tx, id: string, bank: BankDetails): Promise<void> {
  await tx
    .update(supplier)
    .set({ bank, ...raised })
    .where(eq(supplier.id, id))
}

export async function insertPaper(
  tx: Tx,
  p: {
    id: string
    supplierId: string
    name: string
    validUntil: Day | null
    fileHash: string
    addedById: string
    addedAt: Date
  },
): Promise<void> {
  await tx.insert(supplierDocument).values(p)
}
export async function deletePaper(tx: Tx, supplierId: string, id: string): Promise<void> {
  await tx.delete(supplierDocument).where(and(eq(supplierDocument.id, id), eq(supplierDocument.supplierId, supplierId)))
}
export async function setReminded(tx: Tx, id: string, at: Date): Promise<void> {
  await tx.update(supplierDocument).set({ remindedAt: at }).where(eq(supplierDocument.id, id))
}
