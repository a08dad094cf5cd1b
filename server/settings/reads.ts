import { sql } from 'drizzle-orm'
import { type Day } from '#core/base/day'
import { dec, type DecimalText } from '#core/base/decimal'
import { toBaseFactor } from '#core/base/rate'
import { type Tx } from '../db/client'
import { row, rows } from '../db/rows'

export interface Organisation {
  readonly name: string
  readonly address: string
  readonly timeZone: string
  readonly baseCurrency: string
  readonly fiscalStartMonth: number
  readonly orderTolerancePercent: DecimalText
  readonly orderToleranceAmount: DecimalText
  readonly mailFrom: string
  readonly isDemo: boolean
}

/** Who we are; refused with a sentence when nothing was loaded yet. */
export async function requireOrganisation(tx: Tx): Promise<Organisation> {
  const found = await row<Organisation>(tx, sql`
    select name, address, time_zone as "timeZone", base_currency as "baseCurrency", fiscal_start_month as "fiscalStartMonth",
      order_tolerance_percent as "orderTolerancePercent", order_tolerance_amount as "orderToleranceAmount",
      mail_from as "mailFrom", is_demo = 1 as "isDemo"
    from organisation where id = 1`)
  if (found === null) throw new Error('The organisation is not set up: load the demo or enter it.')
  return found
}

export interface TaxCode {
  readonly code: string
  readonly name: string
  readonly category: string
  readonly rate: DecimalText
}

export function listTaxCodes(tx: Tx): Promise<TaxCode[]> {
  return rows<TaxCode>(tx, sql`select code, name, category, rate from tax_code order by rate desc, code`)
}

/** Factors into the base currency on a day: the newest rate on or before it; the base itself is 1. */
export async function listRatesToBase(tx: Tx, baseCurrency: string, day: Day): Promise<[string, DecimalText][]> {
  const found = await rows<{ currency: string; perBase: DecimalText; day: Day }>(tx, sql`
    select distinct on (currency) currency, per_base as "perBase", day::text as day
    from exchange_rate where day <= ${day} order by currency, day desc`)
  return [[baseCurrency, '1'], ...found.filter((r) => dec(r.perBase).gt(0)).map((r): [string, DecimalText] => [r.currency, toBaseFactor(r)])]
}

export function listClosedPeriods(tx: Tx): Promise<{ year: number; period: number }[]> {
  return rows(tx, sql`select year, period from fiscal_period where closed_at is not null`)
}

export async function listHolidays(tx: Tx, from: Day, until: Day): Promise<Day[]> {
  const found = await rows<{ day: Day }>(tx, sql`select day::text as day from holiday where day between ${from} and ${until} order by day`)
  return found.map((h) => h.day)
}
