import { decide } from '../server/approval/decide'
import { listOpenActors } from '../server/approval/reads'
import type { Context } from '../server/context'
import type { Db } from '../server/db/client'
import { askForDecision } from '../server/order/ask-for-decision'
import { listDeskLines } from '../server/order/desk-reads'
import { ORDER } from '../server/order/kind'
import { layOnTray } from '../server/order/lay-tray'
import { findOrder } from '../server/order/reads'
import { PANEL } from './world/needs'
import { personId } from './world/people'

/** Does something as a person, by their id, at a moment. */
export type As = <T>(personId: string, at: Date, work: (ctx: Context) => Promise<T>) => Promise<T>

/** Sends an order that its buyer may not issue alone, and has everybody approve it who is asked, an hour later each. */
export async function haveApproved(db: Db, as: As, orderId: string, buyerId: string, at: Date): Promise<Date> {
  const version = async () => (await findOrder(db, orderId))?.version ?? 1
  const sent = await version()
  await as(buyerId, at, (ctx) => askForDecision(ctx, orderId, sent, false))
  let then = at
  for (;;) {
    const [next] = await as(buyerId, then, (ctx) => listOpenActors(ctx.tx, orderId))
    if (next === undefined) return then
    then = new Date(then.getTime() + 3_600_000)
    const seen = await version()
    await as(next.id, then, (ctx) => decide(ctx, ORDER, orderId, seen, 'approve', ''))
  }
}

/** What is above its buyer's limit lies on an order that waits for whoever decides on it. */
export async function leaveOneWaiting(db: Db, as: As, at: Date): Promise<void> {
  const buyerId = personId('Leonie Farrow')
  const line = (await listDeskLines(db, 'all', 500)).find((l) => l.description === PANEL)
  if (line === undefined) throw new Error('nothing of the demo waits to be ordered above a limit')
  const parts = [{ lineId: line.id, quantity: null }]
  const { orderId } = await as(buyerId, at, (ctx) => layOnTray(ctx, { orderId: null, supplierId: null, parts }))
  await as(buyerId, at, (ctx) => askForDecision(ctx, orderId, 1, true))
}
