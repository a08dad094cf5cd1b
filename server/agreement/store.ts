import { eq, inArray, sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import type { Tx } from '../db/client'
import { agreement, agreementItem } from '../db/schema/agreement'
import type { AgreementItemRow } from './reads'

type Columns = typeof agreement.$inferInsert
/** What of an agreement is written when it is kept. */
export type KeptAgreement = Omit<Columns, 'id' | 'number' | 'drawn' | 'isClosed' | 'version' | 'renewalToldAt'>

export async function insertAgreement(tx: Tx, row: KeptAgreement & Pick<Columns, 'id' | 'number'>): Promise<void> {
  await tx.insert(agreement).values(row)
}

/** Keeps an agreement anew; its keeper is told of its renewal again where that day is another. */
export async function updateAgreement(tx: Tx, id: string, row: KeptAgreement): Promise<void> {
  await tx
    .update(agreement)
    .set({
      ...row,
      version: sql`${agreement.version} + 1`,
      renewalToldAt: sql`case when ${agreement.renewOn} is not distinct from ${row.renewOn ?? null}
        then ${agreement.renewalToldAt} end`,
    })
    .where(eq(agreement.id, id))
}

/** Writes what stands in an agreement, in this order. */
export async function writeAgreementItems(
  tx: Tx,
  agreementId: string,
  items: readonly AgreementItemRow[],
): Promise<void> {
  await tx.delete(agreementItem).where(eq(agreementItem.agreementId, agreementId))
  if (items.length > 0)
    await tx.insert(agreementItem).values(items.map((i, position) => ({ ...i, agreementId, position })))
}

export async function setClosed(tx: Tx, id: string, is: { isClosed: boolean; isInForce: boolean }): Promise<void> {
  await tx
    .update(agreement)
    .set({ ...is, version: sql`${agreement.version} + 1` })
    .where(eq(agreement.id, id))
}

/** Counts what is drawn of an agreement on, or back; its row is locked. */
export async function moveDrawn(tx: Tx, id: string, by: DecimalText): Promise<void> {
  await tx
    .update(agreement)
    .set({ drawn: sql`${agreement.drawn} + ${by}::numeric` })
    .where(eq(agreement.id, id))
}

/** Keeps that the keepers of some agreements were told of their renewal. */
export async function setRenewalTold(tx: Tx, ids: readonly string[], at: Date): Promise<void> {
  if (ids.length > 0)
    await tx
      .update(agreement)
      .set({ renewalToldAt: at })
      .where(inArray(agreement.id, [...ids]))
}

/** Says of every agreement anew whether it is in force on a day, for the catalogue. */
export async function setInForce(tx: Tx, day: Day): Promise<void> {
  const isInForce = sql`(not ${agreement.isClosed} and ${day} between ${agreement.startsOn} and ${agreement.endsOn})`
  await tx
    .update(agreement)
    .set({ isInForce })
    .where(sql`${agreement.isInForce} <> ${isInForce}`)
}
