import { dayOf } from '#core/base/day'
import type { Db } from '../server/db/client'
import { issueOrder } from '../server/order/issue-order'
import { orderDirectly } from '../server/order/order-directly'
import { conditionsOf, findOrder } from '../server/order/reads'
import { setOrderConditions } from '../server/order/set-conditions'
import { createDraft } from '../server/requisition/save-draft'
import { draftOf } from './draft-of'
import { idOf } from './ids'
import { haveApproved, type As } from './orders-to-decide'
import { personId } from './world/people'

/** What was ordered by telephone at night, before anybody could ask for it, and entered in the morning. */
const NIGHT_CALL = {
  department: 'Water Systems',
  by: ['Rosa Castell'],
  title: 'Sump 2 pumped out at night',
  why: 'the float switch of sump 2 stuck and the pump hall stood under water at two in the morning',
  lines: [
    ...[{ text: 'Pump out sump 2, tanker and two people', quantity: 1, price: '340', unit: 'E48', account: '616' }],
    ...[{ text: 'Waiting time of the tanker', quantity: 3, price: '42', unit: 'HUR', account: '616' }],
  ].map((l) => ({ ...l, supplier: 'Harbour Waste' })),
}

/** Enters it, under the number that it was given on the telephone, has it approved, and issues it. */
export async function enterNightCall(db: Db, as: As, at: Date, timeZone: string): Promise<void> {
  const buyerId = personId('Leonie Farrow')
  const id = idOf('order', 'night call')
  const draft = draftOf(NIGHT_CALL, dayOf(at, timeZone), 'night call')
  await as(buyerId, at, (ctx) => createDraft(ctx, id, draft, personId('Rosa Castell')))
  await as(buyerId, at, (ctx) => orderDirectly(ctx, id, 1))
  const tray = await findOrder(db, id)
  if (tray === null) throw new Error('the night call was not ordered')
  await as(buyerId, at, (ctx) =>
    setOrderConditions(ctx, id, tray.version, { ...conditionsOf(tray), placedAs: 'Night call 7', isSent: true }),
  )
  const then = await haveApproved(db, as, id, buyerId, at)
  const version = (await findOrder(db, id))?.version ?? 1
  await as(buyerId, then, (ctx) => issueOrder(ctx, id, version))
}
