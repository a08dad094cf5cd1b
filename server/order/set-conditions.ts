import { dayOf } from '#core/base/day'
import { tidyAdjustments } from '#core/order/adjustment'
import { comparedNumber, conditionReasons, type OrderConditions } from '#core/order/conditions'
import { sayConditionReason } from '#shared/words/conditions'
import { waysOf } from '#shared/words/ways'
import type { Context } from '../context'
import { maySee } from '../document/visible'
import { refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { noteChanged, requireTray } from './lay-tray'
import { conditionsOf, findPlacedAs, type OrderRow } from './reads'
import { setConditions } from './store'
import { SEEN_ORDERS } from './visible'

/**
 * Says how an order that is put together is paid and delivered, until when, and whether it was placed already under
 * another number: that is one supplier's once.
 */
export async function setOrderConditions(
  ctx: Context,
  id: string,
  version: number,
  asked: OrderConditions,
): Promise<{ id: string; version: number }> {
  const tray = await requireTray(ctx, id, version)
  const to = tidied(asked)
  const today = dayOf(ctx.now, (await requireOrganisation(ctx.tx)).timeZone)
  const ways = waysOf(ctx.actor.locale)
  const wrong = conditionReasons(to, tray.currency, today).map((r) => sayConditionReason(r, ways, today))
  if (to.placedAs !== null) wrong.push(...(await sayTaken(ctx, tray, to.placedAs)))
  if (wrong.length > 0) throw refused(wrong, {}, 'does-not-fit')
  if (JSON.stringify(to) === JSON.stringify(tidied(conditionsOf(tray)))) return { id, version }
  const arePaidOtherwise = to.terms.kind !== tray.termsKind || to.terms.days !== tray.termsDays
  await setConditions(ctx.tx, id, { ...to, termsSaid: tray.termsSaid || arePaidOtherwise })
  await noteChanged(ctx, id)
  await notifyChange(ctx.tx, { kind: 'order', id })
  return { id, version: version + 1 }
}

/** Without spaces around what was typed; what is placed by this goes to its supplier. */
const tidied = ({
  terms,
  delivery,
  expiresOn,
  placedAs,
  isSent,
  isBlanket,
  adjustments,
}: OrderConditions): OrderConditions => ({
  terms: { kind: terms.kind, days: terms.days },
  delivery: delivery === null ? null : { term: delivery.term, place: delivery.place.trim() },
  ...{ expiresOn, placedAs: placedAs?.trim() ?? null, isSent, isBlanket },
  adjustments: tidyAdjustments(adjustments),
})

/** The sentence for a number under which another order of the supplier was placed; none where it is free. */
async function sayTaken(ctx: Context, tray: OrderRow, placedAs: string): Promise<string[]> {
  const other = await findPlacedAs(ctx.tx, tray.supplierId, comparedNumber(placedAs), tray.id)
  if (other === null) return []
  const isSeen = await maySee(ctx, SEEN_ORDERS, other.id)
  const called = !isSeen ? 'another order' : (other.number ?? 'another tray of yours')
  return [`${placedAs} of ${tray.supplier} is ${called} already.`]
}
