import { departmentsOf, may, type RoleGrant } from '#core/people/rights'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { setOwner } from '../document/store'
import { refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import type { Actor } from '../people/actor'
import { listOwnedOrders } from './owned-reads'
import { findOrder, type OrderRow } from './reads'
import { listParts } from './tray-reads'

/** Gives an order or tray, locked by the caller, to another buyer. */
export async function giveOrder(ctx: Context, kept: OrderRow, to: Pick<Actor, 'id' | 'name'>): Promise<void> {
  await setOwner(ctx.tx, kept.id, to.id, ctx.now)
  await appendEvent(ctx, {
    type: 'handed over',
    subjectKind: 'order',
    subjectId: kept.id,
    before: { ownerId: kept.ownerId },
    after: { ownerId: to.id, text: to.name },
  })
  await notifyChange(ctx.tx, { kind: 'order', id: kept.id })
}

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
    await giveOrder(ctx, kept, to)
    if (kept.number === null) done.drafts += 1
    else done.sent += 1
  }
  return done
}

/** Refuses a tray to whoever is no buyer of all the departments whose lines lie on it. */
export async function requireForTray(ctx: Context, tray: OrderRow, to: Actor): Promise<void> {
  const part = departmentsOf(to.grants, 'order')
  const parts = part === 'all' ? [] : await listParts(ctx.tx, [tray.id])
  if (!may(to.grants, 'order') || parts.some((p) => !isOf(to.grants, p.departmentId)))
    throw refused([`${to.name} does not buy for every department whose lines lie on the tray for ${tray.supplier}.`])
}

const isOf = (grants: readonly RoleGrant[], departmentId: string) => {
  const part = departmentsOf(grants, 'order')
  return part === 'all' || part.includes(departmentId)
}
