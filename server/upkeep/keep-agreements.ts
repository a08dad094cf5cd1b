import { dayOf } from '#core/base/day'
import { listRenewals } from '../agreement/reads'
import { setInForce, setRenewalTold } from '../agreement/store'
import type { Context } from '../context'
import { tellPeople } from '../people/tell-person'
import { isSetUp, requireOrganisation } from '../settings/reads'

/** What the calendar does to agreements: they come into force and end, and their keepers hear once of each renewal. */
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
}
