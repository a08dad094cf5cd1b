import { dayOf } from '#core/base/day'
import { may, RIGHTS, type Right } from '#core/people/rights'
import type { Me } from '#shared/contract/session'
import type { Context } from '../context'
import { environment } from '../environment'
import { hasReports } from '../people/person-reads'
import { findProfile } from '../people/profile-store'
import { requireOrganisation } from '../settings/reads'
import { countWaiting } from './waiting-reads'

/** Who is signed in, what they may do, what waits for them at each station, and where to begin. */
export async function readMe({ tx, now, actor }: Context): Promise<Me> {
  const [o, counted, decides, profile] = await Promise.all([
    requireOrganisation(tx),
    countWaiting(tx, [actor], now),
    hasReports(tx, actor.id),
    findProfile(tx, actor.id),
  ])
  const rights = (Object.keys(RIGHTS) as Right[]).filter((r) => may(actor.grants, r))
  const { at: waiting, unread } = counted.get(actor.id) ?? { at: { need: 0, decision: 0, order: 0 }, unread: 0 }
  const landing =
    actor.lacksFactor === true
      ? '/account'
      : waiting.decision > 0
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
    theme: profile?.theme ?? 'system',
    lacksFactor: actor.lacksFactor === true,
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
