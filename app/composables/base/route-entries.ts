import type { SeatView } from '#shared/contract/decide'
import type { RouteEntry } from '~/components/base/RouteList.vue'
import type { useWording } from './use-wording'

const SAID = { done: 'approved', 'sent back': 'sent it back', rejected: 'rejected it' } as const

/** A document's route as its list: whoever decided says when, whoever is asked says why. */
export function routeEntries(
  route: readonly SeatView[],
  wording: Pick<ReturnType<typeof useWording>, 'moment'>,
): RouteEntry[] {
  return route.map((s, i) => ({
    key: `${i}`,
    name: s.name,
    state: s.state,
    you: s.you,
    why:
      s.at !== null && s.state in SAID
        ? `${SAID[s.state as keyof typeof SAID]}${s.byMail ? ' by mail' : ''} ${wording.moment(s.at)}`
        : s.why,
  }))
}
