import { eq } from 'drizzle-orm'
import { supplier } from '../db/schema/supplier'
import type { Tx } from '../db/client'

export async function insertSupplier(
  tx: Tx,
  s: {
    id: string
    number: string
    name: string
    town: string
    address: string
    email: string | null
    telephone: string
    taxNumber: string | null
    currency: string
    note: string
    standing: 'active' | 'proposed'
    proposedById: string
    proposedAt: Date
  },
): Promise<void> {
  const { note, ...columns } = s
  await tx.insert(supplier).values({ ...columns, name: s.name.trim(), proposalNote: note })
}

export async function setTaxForm(tx: Tx, id: string, hash: string): Promise<void> {
  await tx.update(supplier).set({ taxFormHash: hash }).where(eq(supplier.id, id))
}
