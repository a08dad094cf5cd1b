import { dayOf } from '#core/base/day'
import { may } from '#core/people/rights'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { forbidden } from '../http/problem'
import { notifyChange } from '../live/notify'
import { postMails } from '../mail/post-mail'
import { requireOrganisation } from '../settings/reads'
import { pathOf } from './answer-path'
import { setReminded } from './answer-store'
import { listUnanswered } from './answer-reads'

/** At most so many in one press. */
const MOST = 200

/**
 * Asks suppliers once more for an answer to orders of one's own that they did not answer, the oldest first; each at
 * most once a day, so that a second press does nothing.
 */
export async function remindSuppliers(ctx: Context, orderIds: readonly string[]): Promise<{ reminded: number }> {
  if (!may(ctx.actor.grants, 'order')) throw forbidden('Buyers remind suppliers.')
  const { name, timeZone } = await requireOrganisation(ctx.tx)
  const today = dayOf(ctx.now, timeZone)
  const orders = (await listUnanswered(ctx.tx, ctx.actor.id, orderIds, MOST)).filter(
    (o) => o.remindedAt === null || dayOf(new Date(o.remindedAt), timeZone) < today,
  )
  for (const o of orders) {
    await setReminded(ctx.tx, o.id, ctx.now)
    await appendEvent(ctx, { type: 'supplier reminded', subjectKind: 'order', subjectId: o.id, after: { to: o.email } })
    await notifyChange(ctx.tx, { kind: 'order', id: o.id })
  }
  await postMails(
    ctx.tx,
    orders.map((o) => ({
      ...{ personId: null, toName: o.supplier, toAddress: o.email, path: pathOf(o) },
      ...{ aboutKind: 'order', aboutId: o.id, notBefore: ctx.now, now: ctx.now },
      told: {
        ...({ code: 'order-unanswered', supplier: o.supplier, number: o.number } as const),
        ...{ organisation: name, buyer: ctx.actor.name, issuedOn: dayOf(new Date(o.issuedAt), timeZone) },
      },
    })),
  )
  return { reminded: orders.length }
}
