import { dayOf } from '#core/base/day'
import { waysOf } from '#shared/words/ways'
import { useSessionStore } from '~/stores/session'

/** Numbers, days and moments in the ways of whoever is signed in, as the organisation counts its days. */
export function useWording() {
  const session = useSessionStore()
  const today = computed(() => session.me?.today ?? '2000-01-01')
  const zone = computed(() => session.me?.organisation.timeZone ?? 'UTC')
  const ways = waysOf(session.me?.locale ?? 'en-GB')
  const { decimal, typed, amount, money, kept, price, rate, quantity, decimalMark, percent, shortMonth } = ways
  return {
    ways,
    today,
    zone,
    decimal,
    typed,
    amount,
    money,
    kept,
    price,
    rate,
    quantity,
    decimalMark,
    percent,
    shortMonth,
    day: (day: string) => ways.day(day, today.value),
    shortDay: (day: string) => ways.shortDate(day, today.value),
    moment: (iso: string) => ways.moment(iso, zone.value, today.value),
    exact: (iso: string) => ways.exact(iso, zone.value),
    since: (iso: string) => ways.since(dayOf(new Date(iso), zone.value), today.value),
  }
}
