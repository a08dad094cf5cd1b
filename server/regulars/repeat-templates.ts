import { randomUUID } from 'node:crypto'
import { addBusinessDays, dayOf } from '#core/base/day'
import { nextOf } from '#core/requisition/rhythm'
import { tell } from '../document/tell'
import type { Db, Tx } from '../db/client'
import { REKKO } from '../people/actor'
import { findActor } from '../people/actor-reads'
import { enqueue } from '../queue/enqueue'
import { listHolidays, requireOrganisation } from '../settings/reads'
import { REQUISITION } from '../requisition/kind'
import { createDraft } from '../requisition/save-draft'
import { renewed } from './begin'
import { findTemplate, listDueTemplates } from './template-reads'
import { setNext } from './store'

/** Puts every template whose day has come into the queue, each as a task of its own. */
export async function repeatAll(db: Db, now: Date): Promise<void> {
  const { timeZone } = await requireOrganisation(db)
  for (const { id } of await listDueTemplates(db, dayOf(now, timeZone)))
    await enqueue(db, 'repeat-template', { templateId: id })
}

/**
 * Raises one template and sets its next time, in one transaction: a crash neither loses nor repeats it.
 * Days that were missed are not made up for. The rhythm of somebody who left ends.
 */
export async function repeatTemplate(tx: Tx, id: string, now: Date): Promise<void> {
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
      { id: requisitionId, kind: REQUISITION.name },
      { code: 'repeated', title: t.name },
      { path: REQUISITION.changePath(requisitionId) },
    )
}
