import type { Day } from '#core/base/day'
import { dec } from '#core/base/decimal'
import { priceFor, type PriceStep } from '#core/catalogue/price'
import type { Packs } from '#core/catalogue/pack'
import { unitName } from '#core/base/unit'
import { formatCount } from '#shared/words/format'
import type { CatalogueItem } from '#shared/contract/catalogue'
import type { Ways } from '#shared/words/ways'

type Priced = Pick<CatalogueItem, 'prices' | 'unit' | 'priceBase' | 'currency'>

/** "each", or "for 100 each" where a price is for more than one. */
export const sayPer = (i: Pick<Priced, 'unit' | 'priceBase'>, ways: Ways): string =>
  dec(i.priceBase).eq(dec('1')) ? unitName(i.unit) : `for ${ways.quantity(i.priceBase, i.unit)}`

/** The steps that hold on a day, quantities rising. */
export const stepsToday = (steps: readonly PriceStep[], day: Day): PriceStep[] =>
  [...steps]
    .filter((s) => (s.validFrom === null || s.validFrom <= day) && (s.validUntil === null || day <= s.validUntil))
    .sort((a, b) => dec(a.from).comparedTo(dec(b.from)))

/** What one costs, and below it what more cost: "31.50 each", "27.90 from 10". */
export function sayPrices(i: Priced, day: Day, ways: Ways, base: string): string[] {
  const first = priceFor(i.prices, '1', day)
  if (first === null) return ['no price']
  const currency = i.currency === base ? '' : `${i.currency} `
  const more = stepsToday(i.prices, day).filter((s) => dec(s.from).gt(dec('1')))
  return [
    `${currency}${ways.price(first.unitPrice, i.currency)} ${sayPer(i, ways)}`,
    ...more.map((s) => `${ways.price(s.unitPrice, i.currency)} from ${ways.decimal(dec(s.from).toFixed())}`),
  ]
}

/** How many packs a quantity makes: "two packs of 12". */
export const sayPacks = (p: Packs, size: string, ways: Ways): string =>
  `${formatCount(Number(p.packs), 'pack', 'packs')} of ${ways.decimal(size)}`
