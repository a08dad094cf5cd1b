import type { IntegrityFound } from '#core/audit/integrity'
import type { Tx } from '../db/client'
import { integrityRun } from '../db/schema/audit'

/** Keeps what a look found. */
export async function insertRun(tx: Tx, at: Date, byId: string | null, found: IntegrityFound): Promise<void> {
  await tx.insert(integrityRun).values({ at, byId, found })
}
