import { departmentsOf, may } from '#core/people/rights'
import type { Context } from '../context'
import { changeOwner } from '../document/change-owner'
import { refused } from '../http/problem'
import type { Actor } from '../people/actor'
import { listOwnedOrders } from './owned-reads'
import { findOrder, type OrderRow } from './reads'
import { listParts } from './tray-reads'

/** Gives all orders and trays of a buyer that serve departments and are not over to another; says how many. */
export async function giveOrders(
  ctx: Context,
  fromId: string,
  to: Actor,
  departments: 'all' | readonly string[],
): Promise<{ sent: number; drafts: number }> {
  const done = { sent: 0, drafts: 0 }
  for (const { id } of await listOwnedOrders(ctx.tx, fromId, departments)) {
    const kept = await findOrder(ctx.tx, id, true)
    if (kept?.ownerId !== fromId) continue
    if (kept.number === null) await requireForTray(ctx, kept, to)
    await changeOwner(ctx, kept, to)
    if (kept.number === null) done.drafts += 1
    else done.sent += 1
  }
  return done
}

/** Refuses a tray to whoever is no buyer of all the departments whose lines lie on it. */
export async function requireForTray(ctx: Context, tray: OrderRow, to: Actor): Promise<void> {
  const part = may(to.grants, 'order') ? departmentsOf(to.grants, 'order') : []
  if (part === 'all') return
  const parts = await listParts(ctx.tx, [tray.id])
  if (part.length === 0 || parts.some((p) => !part.includes(p.departmentId)))
    throw refused([`${to.name} does not buy for every department whose lines lie on the tray for ${tray.supplier}.`])
}
