import { isInPart, may, partOf, type Part } from '#core/people/rights'
import { readDecisions } from '../approval/reads'
import { routeAgain } from '../approval/route-again'
import type { Context } from '../context'
import { changeOwner } from '../document/change-owner'
import { refused } from '../http/problem'
import type { Actor } from '../people/actor'
import { ORDER_CHANGE } from './change-kind'
import { findChange, findUnderWay } from './change-reads'
import { ORDER } from './kind'
import { listOwnedOrders } from './owned-reads'
import { findOrder, type OrderRow } from './reads'
import { listParts } from './tray-reads'

/** Gives all orders and trays of a buyer that serve a part and are not over to another; says how many. */
export async function giveOrders(
  ctx: Context,
  fromId: string,
  to: Actor,
  part: Part,
): Promise<{ sent: number; drafts: number }> {
  const done = { sent: 0, drafts: 0 }
  for (const { id } of await listOwnedOrders(ctx.tx, fromId, part)) {
    const kept = await findOrder(ctx.tx, id, true)
    if (kept?.ownerId !== fromId) continue
    if (kept.number === null) await requireForTray(ctx, kept, to)
    // Nobody issues what they decided on themselves.
    const decided = kept.number === null ? id : (await findUnderWay(ctx.tx, id))?.id
    if (decided !== undefined && (await hasApproved(ctx, decided, to.id))) continue
    await changeOwner(ctx, kept, to)
    const given = await ORDER.find(ctx.tx, id)
    if (given !== null) await routeAgain(ctx, ORDER, given)
    await giveUnderWay(ctx, id, to)
    if (kept.number === null) done.drafts += 1
    else done.sent += 1
  }
  return done
}

/** A change of an order that is under way goes with it, and is decided on as the new buyer's. */
async function giveUnderWay(ctx: Context, orderId: string, to: Actor): Promise<void> {
  const found = await findUnderWay(ctx.tx, orderId)
  const change = found === null ? null : await findChange(ctx.tx, found.id, true)
  if (change === null) return
  await changeOwner(ctx, change, to)
  const given = await findChange(ctx.tx, change.id)
  if (given !== null) await routeAgain(ctx, ORDER_CHANGE, given)
}

async function hasApproved({ tx }: Context, id: string, personId: string): Promise<boolean> {
  const { standing } = await readDecisions(tx, id)
  return standing.some((d) => d.actorId === personId || d.forId === personId)
}

/** Refuses a tray to whoever is no buyer of all the departments or places whose lines lie on it. */
export async function requireForTray(ctx: Context, tray: OrderRow, to: Actor): Promise<void> {
  const part = partOf(to.grants, 'order')
  if (part === 'all') return
  const parts = await listParts(ctx.tx, [tray.id])
  if (!may(to.grants, 'order') || parts.some((p) => !isInPart(part, p)))
    throw refused([`${to.name} does not buy for all whose lines lie on the tray for ${tray.supplier}.`])
}
