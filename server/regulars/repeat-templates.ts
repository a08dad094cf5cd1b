import { randomUUID } from 'node:crypto'
import { addBusinessDays, dayOf } from '#core/base/day'
import { nextOf } from '#core/requisition/rhythm'
import { type Context } from '../context'
import { inTransaction, type Db, type Tx } from '../db/client'
import { Problem } from '../http/problem'
import { type Actor } from '../people/actor'
import { findActor } from '../people/reads'
import { enqueue } from '../queue/enqueue'
import { listHolidays, requireOrganisation } from '../settings/reads'
import { findRequisition } from '../requisition/reads'
import { createDraft } from '../requisition/save-draft'
import { sendRequisition } from '../requisition/send-requisition'
import { tell } from '../requisition/tell'
import { renewed } from './begin'
import { findTemplate, listDueTemplates } from './reads'
import { setNext } from './store'

const REKKO: Actor = { id: '', name: 'Rekko', locale: 'en-GB', grants: [] }

/** Raises every template whose day has come: a draft of its owner's, which waits for a look or is sent. */
export async function repeatTemplates(db: Db, clock: () => Date): Promise<void> {
  const { timeZone } = await requireOrganisation(db)
  for (const { id } of await listDueTemplates(db, dayOf(clock(), timeZone)))
    await inTransaction(db, (tx) => repeatTemplate(tx, id, clock()))
}

/**
 * Raises one template and sets its next time, in one transaction: a crash neither loses nor repeats it.
 * Days that were missed are not made up for. The rhythm of somebody who left ends.
 */
async function repeatTemplate(tx: Tx, id: string, now: Date): Promise<void> {
  const t = await findTemplate(tx, id, true)
  const { timeZone, fiscalStartMonth } = await requireOrganisation(tx)
  const today = dayOf(now, timeZone)
  if (t === null || t.repeats === null || t.startsOn === null || t.nextOn === null || t.nextOn > today) return
  const owner = await findActor(tx, t.ownerId, now)
  if (owner === null) {
    await setNext(tx, id, null)
    return
  }
  const holidays = new Set(await listHolidays(tx, today, `${Number(today.slice(0, 4)) + 2}-01-01`))
  const draft = {
    ...(await renewed(tx, t.draft, today, fiscalStartMonth)),
    needBy: addBusinessDays(today, t.neededAfter, holidays),
  }
  const requisitionId = randomUUID()
  await createDraft({ tx, now, actor: owner }, requisitionId, draft)
  await setNext(tx, id, nextOf(t.repeats, t.startsOn, today))
  if (t.sendsItself) await enqueue(tx, 'send-repeated', { requisitionId })
  else
    await tell(
      { tx, now, actor: REKKO },
      t.ownerId,
      { id: requisitionId },
      {
        subject: `Raised again: ${t.name}`,
        sentence: `${t.name} was raised again by its rhythm and waits for your look.`,
        path: `/raise/${requisitionId}`,
      },
    )
}

/** Sends what a rhythm raised, as its owner; where something is missing it stays a draft, and they hear what. */
export async function sendRepeated(db: Db, requisitionId: string, now: Date): Promise<void> {
  const kept = await findRequisition(db, requisitionId)
  const owner = kept === null || kept.state !== 'draft' ? null : await findActor(db, kept.ownerId, now)
  if (kept === null || owner === null) return
  const as = (tx: Tx): Context => ({ tx, now, actor: owner })
  try {
    await inTransaction(db, async (tx) => {
      const sent = await sendRequisition(as(tx), requisitionId, kept.version)
      await tell({ tx, now, actor: REKKO }, owner.id, kept, {
        subject: `Sent by its rhythm: ${kept.draft.title}`,
        sentence: `${sent.number}, ${kept.draft.title}, was raised again and sent by its rhythm.`,
      })
    })
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    await inTransaction(db, (tx) =>
      tell({ tx, now, actor: REKKO }, owner.id, kept, {
        subject: `Waits for you: ${kept.draft.title}`,
        sentence: `${kept.draft.title} was raised again by its rhythm and could not be sent: ${error.detail}`,
        path: `/raise/${requisitionId}`,
      }),
    )
  }
}
