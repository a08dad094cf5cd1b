import { minorUnits } from '#core/base/currency'
import { addDays, type Day } from '#core/base/day'
import { dec, type DecimalText } from '#core/base/decimal'
import { priceEffect } from '#core/catalogue/price-effect'
import { stepsOf } from '#core/catalogue/typed-steps'
import { keyOf, type ListDefinition } from '#core/lists/list'
import type { ListPlan } from '#core/lists/plan'
import type { Tx } from '../db/client'
import { listBought } from './bought-reads'
import type { KeptEntry } from './keeper'

const YEAR = 365

/** What changed prices of items make of a year: by row, and in all by currency, at the quantities of the last year. */
export interface Dearer {
  readonly byRow: ReadonlyMap<number, DecimalText>
  readonly sums: readonly { readonly currency: string; readonly amount: DecimalText }[]
}

/** Works out what the prices of a plan cost in a year; nothing where the list has no prices or none changes. */
export async function findDearer(
  tx: Tx,
  list: ListDefinition,
  plan: ListPlan,
  entries: readonly KeptEntry[],
  today: Day,
): Promise<Dearer> {
  const ids = new Map(entries.map((e) => [keyOf(list, e.values), e.id]))
  const repriced = plan.rows.filter(
    (r) =>
      r.changed.includes('prices') &&
      r.before !== null &&
      !r.changed.includes('currency') &&
      !r.changed.includes('per'),
  )
  const bought = await listBought(
    tx,
    repriced.map((r) => ids.get(keyOf(list, r.after)) ?? '').filter((id) => id !== ''),
    addDays(today, -YEAR),
  )
  const byRow = new Map<number, DecimalText>()
  const sums = new Map<string, DecimalText>()
  for (const r of repriced) {
    const portions = bought.get(ids.get(keyOf(list, r.after)) ?? '')
    const { prices = '', per = '1', currency = '' } = r.after
    if (portions === undefined) continue
    const effect = priceEffect(portions, stepsOf(r.before?.prices ?? ''), stepsOf(prices), per, currency)
    if (effect === null) continue
    byRow.set(r.at, effect)
    sums.set(
      currency,
      dec(sums.get(currency) ?? '0')
        .plus(dec(effect))
        .toFixed(minorUnits(currency)),
    )
  }
  return { byRow, sums: [...sums].sort().map(([currency, amount]) => ({ currency, amount })) }
}
