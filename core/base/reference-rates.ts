import { dec, type DecimalText } from './decimal'
import type { Rate } from './rate'

/** Decimals that a rate keeps. */
const PLACES = 8

/**
 * Rates published for one currency, turned into rates for another: units for one of `base`. The published currency
 * itself is among them then. Null where `base` has no rate on one of the days.
 */
export function rebaseRates(published: readonly Rate[], per: string, base: string): Rate[] | null {
  if (per === base) return [...published]
  const days = new Map<string, Rate[]>()
  for (const r of published) days.set(r.day, [...(days.get(r.day) ?? []), r])
  const turned: Rate[] = []
  for (const [day, rates] of days) {
    const ours = rates.find((r) => r.currency === base)
    if (ours === undefined || !dec(ours.perBase).isPositive()) return null
    const over = (perBase: DecimalText) => dec(perBase).dividedBy(dec(ours.perBase)).toPlaces(PLACES).toFixed()
    turned.push({ day, currency: per, perBase: over('1') })
    for (const r of rates) if (r.currency !== base) turned.push({ ...r, perBase: over(r.perBase) })
  }
  return turned
}
