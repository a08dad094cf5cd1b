import { dayOf } from '#core/base/day'
import { may, RIGHTS, type Right } from '#core/people/rights'
import type { Me } from '#shared/contract/session'
import type { Context } from '../context'
import { environment } from '../environment'
import { countWaiting } from '../requisition/mine-reads'
import { readTold } from '../people/notice-reads'
import { requireOrganisation } from '../settings/reads'

/** Who is signed in, what they may do, what waits for them at each station, and where to begin. */
export async function readMe({ tx, now, actor }: Context): Promise<Me> {
  const o = await requireOrganisation(tx)
  const rights = (Object.keys(RIGHTS) as Right[]).filter((r) => may(actor.grants, r))
  const waiting = await countWaiting(tx, actor.id, {
    buys: may(actor.grants, 'order'),
    decidesSuppliers: may(actor.grants, 'approve suppliers'),
  })
  const { unread, decides } = await readTold(tx, actor.id)
  const landing =
    waiting.decision > 0
      ? '/decide'
      : waiting.need > 0
        ? '/mine'
        : waiting.order > 0 && !rights.includes('order')
          ? '/suppliers'
          : rights.includes('order')
            ? '/desk'
            : decides
              ? '/decide'
              : '/raise'
  return {
    id: actor.id,
    name: actor.name,
    locale: actor.locale,
    rights,
    waiting,
    landing,
    unread,
    organisation: {
      name: o.name,
      timeZone: o.timeZone,
      baseCurrency: o.baseCurrency,
      fiscalStartMonth: o.fiscalStartMonth,
    },
    today: dayOf(now, o.timeZone),
    isDemo: o.isDemo && environment().isDemo,
  }
}
