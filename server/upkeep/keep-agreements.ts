import { addDays, dayOf, type Day } from '#core/base/day'
import { WARNED_BEFORE_END } from '#core/order/call-off'
import { listRenewals } from '../agreement/reads'
import { setInForce, setRenewalTold } from '../agreement/store'
import type { Context } from '../context'
import { listEndingBlankets } from '../order/call-off-reads'
import { setEndTold } from '../order/store'
import { tellPeople } from '../people/tell-person'
import { isSetUp, requireOrganisation } from '../settings/reads'

/**
 * What the calendar does to agreements: they come into force and end, and their keepers hear once of each renewal; and
 * to blanket orders, whose buyers hear once of each last day that comes near.
 */
export async function keepAgreements(ctx: Context): Promise<void> {
  const { tx, now } = ctx
  if (!(await isSetUp(tx))) return
  const today = dayOf(now, (await requireOrganisation(tx)).timeZone)
  await setInForce(tx, today)
  const due = await listRenewals(tx, today)
  await tellPeople(
    ctx,
    due.map((a) => ({
      personId: a.keeperId,
      about: { kind: 'agreement', id: a.id },
      told: {
        ...{ code: 'agreement-renewal' as const, agreement: a.number, name: a.name },
        ...{ supplier: a.supplier, endsOn: a.endsOn },
      },
      path: `/agreements/${a.id}`,
    })),
  )
  await setRenewalTold(
    tx,
    due.map((a) => a.id),
    now,
  )
  await warnOfEnds(ctx, today)
}

async function warnOfEnds(ctx: Context, today: Day): Promise<void> {
  const ending = await listEndingBlankets(ctx.tx, today, addDays(today, WARNED_BEFORE_END))
  await tellPeople(
    ctx,
    ending.map(({ id, buyerId, number, supplier, endsOn }) => ({
      personId: buyerId,
      about: { kind: 'order', id },
      told: { code: 'blanket-ends' as const, number, supplier, endsOn },
      path: `/orders/${id}`,
    })),
  )
  for (const { id, endsOn } of ending) await setEndTold(ctx.tx, id, endsOn)
}
