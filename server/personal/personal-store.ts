import { eq } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { idempotency } from '../db/schema/http'
import { outgoingMail } from '../db/schema/mail'
import {
  absence,
  accessToken,
  calendarFeed,
  limitForDays,
  notice,
  oneTimeKey,
  person,
  recoveryCode,
  roleGrant,
  secondFactor,
  session,
} from '../db/schema/people'

/**
 * Takes away what says who somebody was: name, address, how they signed in, what they were told. The row stays, so that
 * documents, decisions and events go on naming one and the same person, whom nobody can tell any more.
 */
export async function erase(tx: Tx, id: string, as: { readonly name: string; readonly email: string }): Promise<void> {
  await tx
    .update(person)
    .set({
      ...as,
      jobTitle: '',
      passwordHash: null,
      demoNote: null,
      ownLimit: null,
      decidingLimit: null,
      orderingLimit: null,
    })
    .where(eq(person.id, id))
  for (const table of [
    session,
    accessToken,
    recoveryCode,
    secondFactor,
    oneTimeKey,
    notice,
    roleGrant,
    limitForDays,
    calendarFeed,
  ] as const)
    await tx.delete(table).where(eq(table.personId, id))
  await tx.update(absence).set({ note: '' }).where(eq(absence.personId, id))
  await tx.delete(idempotency).where(eq(idempotency.personId, id))
  await tx.update(outgoingMail).set({ toName: as.name, toAddress: as.email }).where(eq(outgoingMail.personId, id))
}
