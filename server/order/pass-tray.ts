import { covers, convert } from '#core/base/money'
import { may } from '#core/people/rights'
import { newestEvent } from '../audit/reads'
import type { Context } from '../context'
import { changeOwner } from '../document/change-owner'
import { tell } from '../document/tell'
import { forbidden, notFound, refused, stale } from '../http/problem'
import { requireHere } from '../people/find-people'
import { listBuyers } from '../people/person-reads'
import { computeTray } from './compute-tray'
import { requireForTray } from './give-order'
import { requireTray } from './lay-tray'
import { findOrder, type OrderRow } from './reads'

/**
 * Passes a tray to another buyer, whose it is from then on. Whoever passed it may take it back while the other has not
 * touched it.
 */
export async function passTray(
  ctx: Context,
  id: string,
  version: number,
  personId: string,
): Promise<{ id: string; version: number }> {
  const tray = await requirePassable(ctx, id, version)
  const to = await requireHere(ctx, personId)
  if (to.id === tray.ownerId) throw refused([`It is ${to.id === ctx.actor.id ? 'yours' : `${to.name}’s`} already.`])
  await requireForTray(ctx, tray, to)
  await changeOwner(ctx, tray, to)
  if (to.id !== ctx.actor.id) {
    const told = { code: 'tray-passed', by: ctx.actor.name, supplier: tray.supplier } as const
    await tell(ctx, to.id, tray, told, { path: '/desk' })
  }
  return { id, version: tray.version + 1 }
}

/** One's own tray; or one that one passed on last, and that lies as it did then. */
async function requirePassable(ctx: Context, id: string, version: number): Promise<OrderRow> {
  const tray = await findOrder(ctx.tx, id, true)
  if (tray === null || tray.ownerId === ctx.actor.id) return requireTray(ctx, id, version)
  const last = await newestEvent(ctx.tx, id)
  const passedIt = last?.type === 'handed over' && last.actorId === ctx.actor.id
  if (!may(ctx.actor.grants, 'order') || tray.state !== 'draft') throw notFound('This tray')
  if (!passedIt) throw forbidden(`This tray is ${tray.buyer}’s.`)
  if (version !== tray.version) throw stale(`${tray.buyer} changed the tray already`)
  return tray
}

/** Buyers to whom a tray may be passed, those whose limit covers it first. */
export async function readTrayBuyers(
  ctx: Context,
  id: string,
): Promise<{ buyers: { id: string; name: string; mayIssue: boolean }[] }> {
  const tray = await requireTray(ctx, id, null)
  const { sums, perBase, parts, today, organisation } = await computeTray(ctx.tx, tray, ctx.actor.id, ctx.now)
  const worth = perBase === null ? null : convert(sums.net, perBase, organisation.baseCurrency)
  const buyers = await listBuyers(ctx.tx, parts, organisation.baseCurrency, today)
  return {
    buyers: buyers
      .filter((b) => b.id !== ctx.actor.id)
      .map((b) => ({ id: b.id, name: b.name, mayIssue: worth !== null && covers(b.orderingLimit, worth) }))
      .sort((a, b) => Number(b.mayIssue) - Number(a.mayIssue)),
  }
}
