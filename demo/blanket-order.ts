import { addDays, dayOf, type Day } from '#core/base/day'
import type { Db } from '../server/db/client'
import { readBlanketLines } from '../server/order/blanket-lines'
import { callOff } from '../server/order/call-off'
import { issueOrder } from '../server/order/issue-order'
import { noteTalk } from '../server/order/note-talk'
import { orderDirectly } from '../server/order/order-directly'
import { conditionsOf, findOrder } from '../server/order/reads'
import { setOrderConditions } from '../server/order/set-conditions'
import { createDraft } from '../server/requisition/save-draft'
import { draftOf } from './draft-of'
import { idOf } from './ids'
import { haveApproved, type As } from './orders-to-decide'
import { personId } from './world/people'

/** What the boat needs through the winter, at prices that were agreed once: rope by the metre, work by amount. */
const WINTER = {
  department: 'Research Boat',
  by: ['Sorrel Quist'],
  title: 'Rope and yard work for the winter',
  why: 'the boat lies up until spring, and what it needs shows when a hatch is opened',
  lines: [
    ...[{ text: 'Mooring rope, 16 mm, polyester', quantity: 240, price: '3.15', unit: 'MTR', account: '640' }],
    ...[{ text: 'Yard work as it is needed', quantity: 1, price: '900', unit: 'LS', account: '640' }],
  ].map((l) => ({ ...l, supplier: 'Mistral Chandlery' })),
}
/** So many days ago it was ordered, and what was called off since: metres of rope, and an amount of work. */
export const BLANKET_AGO = 45
export const CALLED: readonly { readonly ago: number; readonly much: readonly [rope: string, work: string] }[] = [
  { ago: 31, much: ['80', '185.00'] },
  { ago: 9, much: ['60', '240.00'] },
]
const ID = idOf('order', 'winter of the boat')

/** Orders it as a blanket order, and has it approved. */
export async function orderForWinter(db: Db, as: As, at: Date, today: Day, timeZone: string): Promise<void> {
  const buyerId = personId('Leonie Farrow')
  const draft = draftOf(WINTER, dayOf(at, timeZone), 'winter of the boat')
  await as(buyerId, at, (ctx) => createDraft(ctx, ID, draft, personId(WINTER.by[0] ?? '')))
  await as(buyerId, at, (ctx) => orderDirectly(ctx, ID, 1))
  const tray = await findOrder(db, ID)
  if (tray === null) throw new Error('nothing was ordered for the winter')
  const said = { ...conditionsOf(tray), isBlanket: true, expiresOn: addDays(today, 120) }
  await as(buyerId, at, (ctx) => setOrderConditions(ctx, ID, tray.version, said))
  const then = await haveApproved(db, as, ID, buyerId, at)
  const version = (await findOrder(db, ID))?.version ?? 1
  await as(buyerId, then, (ctx) => issueOrder(ctx, ID, version))
}

/** What the yard said when it was asked for a day. */
export async function askTheYard(as: As, at: Date): Promise<void> {
  const said = 'They can begin on the Monday after; the rope comes with them. Ask for Paulette, not for the counter.'
  await as(personId('Leonie Farrow'), at, (ctx) =>
    noteTalk(ctx, ID, { way: 'telephone', with: 'Paulette, the yard', text: said }),
  )
}

/** Calls a part of it off, needed a week later. */
export async function callOffForWinter(db: Db, as: As, at: Date, much: readonly string[]): Promise<void> {
  const order = await findOrder(db, ID)
  if (order === null) throw new Error('nothing was ordered for the winter')
  const needBy = addDays(at.toISOString().slice(0, 10), 7)
  const lines = (await readBlanketLines(db, ID, order.currency)).map((l, i) => ({
    ...{ lineId: l.id, much: much[i] ?? '0', needBy },
  }))
  await as(order.ownerId, at, (ctx) => callOff(ctx, ID, order.version, { lines, shipToId: order.shipToId, note: '' }))
}
