import { dayOf } from '#core/base/day'
import { formatDay, formatExact, formatMoment, formatShortDate, formatSince } from '#shared/words/format'
import { useSessionStore } from '~/stores/session'

/** Days and moments as this organisation says them. */
export function useWording() {
  const session = useSessionStore()
  const today = computed(() => session.me?.today ?? '2000-01-01')
  const zone = computed(() => session.me?.organisation.timeZone ?? 'UTC')
  return {
    today,
    zone,
    day: (day: string) => formatDay(day, today.value),
    shortDay: (day: string) => formatShortDate(day, today.value),
    moment: (iso: string) => formatMoment(iso, zone.value, today.value),
    exact: (iso: string) => formatExact(iso, zone.value),
    since: (iso: string) => formatSince(dayOf(new Date(iso), zone.value), today.value),
    decimalMark: computed((): '.' | ',' => ((session.me?.locale ?? 'en-GB').startsWith('en') ? '.' : ',')),
  }
}
