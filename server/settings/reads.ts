import { sql } from 'drizzle-orm'
import { type Day, dayOf } from '#core/base/day'
import { dec, type DecimalText } from '#core/base/decimal'
import type { NewSupplierPolicy } from '#core/requisition/form'
import { toBaseFactor } from '#core/base/rate'
import type { Tx } from '../db/client'
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
  /** Whether somebody who raises may name a supplier that is not there yet. */
  readonly newSuppliers: NewSupplierPolicy
  /** The version of what is asked for with requisitions. */
  readonly formVersion: number
}

const ORGANISATION = sql`o.name, o.address, o.time_zone as "timeZone", o.base_currency as "baseCurrency",
  o.fiscal_start_month as "fiscalStartMonth",
  o.order_tolerance_percent as "orderTolerancePercent", o.order_tolerance_amount as "orderToleranceAmount",
  o.mail_from as "mailFrom", o.is_demo = 1 as "isDemo", o.new_suppliers as "newSuppliers",
    o.form_version as "formVersion"`

function present<T>(found: T | null): T {
  if (found === null) throw new Error('The organisation is not set up: load the demo or enter it.')
  return found
}

/** Who we are; an error when nothing was loaded yet. */
export async function requireOrganisation(tx: Tx): Promise<Organisation> {
  return present(await row<Organisation>(tx, sql`select ${ORGANISATION} from organisation o where o.id = 1`))
}

/** The version of what is asked for with requisitions, with the right to change it until the transaction ends. */
export async function lockFormVersion(tx: Tx): Promise<number> {
  return present(
    await row<{ version: number }>(
      tx,
      sql`select form_version as version from organisation where id = 1 for no key update`,
    ),
  ).version
}

export interface TaxCode {
  readonly code: string
  readonly name: string
  readonly category: string
  readonly rate: DecimalText
}

/** What documents are computed by on a day. */
export interface Terms {
  readonly organisation: Organisation
  readonly today: Day
  readonly taxCodes: readonly TaxCode[]
  /** Factors into the base currency: the newest rate on or before the day; the base itself is 1. */
  readonly toBase: readonly (readonly [currency: string, factor: DecimalText])[]
  readonly closedPeriods: readonly { readonly year: number; readonly period: number }[]
}

/**
 * The terms at a moment; rates are those of `rateDay` (an accounting date), or of today. One statement, as every
 * sending needs it.
 */
export async function requireTerms(tx: Tx, now: Date, rateDay: Day | null = null): Promise<Terms> {
  const found = present(
    await row<
      Organisation &
        Pick<Terms, 'taxCodes' | 'closedPeriods'> & { rates: { currency: string; perBase: DecimalText; day: Day }[] }
    >(
      tx,
      sql`
    select ${ORGANISATION},
      (select coalesce(json_agg(json_build_object('code', t.code, 'name', t.name, 'category', t.category, 'rate',
        trim_scale(t.rate)::text) order by t.rate desc, t.code), '[]')
        from tax_code t) as "taxCodes",
      (select coalesce(json_agg(json_build_object('currency', r.currency, 'perBase', trim_scale(r.per_base)::text,
        'day', r.day)), '[]') from (
        select distinct on (currency) currency, per_base, day from exchange_rate
        where day <= coalesce(${rateDay}::date,
          (${now.toISOString()}::timestamptz at time zone o.time_zone)::date) order by currency, day desc) r) as rates,
      (select coalesce(json_agg(json_build_object('year', p.year, 'period', p.period)), '[]') from fiscal_period p
        where p.closed_at <= ${now.toISOString()}) as "closedPeriods"
    from organisation o where o.id = 1`,
    ),
  )
  const { taxCodes, closedPeriods, rates, ...organisation } = found
  return {
    organisation,
    today: dayOf(now, organisation.timeZone),
    taxCodes,
    closedPeriods,
    toBase: [
      [organisation.baseCurrency, '1'],
      ...rates.filter((r) => dec(r.perBase).gt(0)).map((r) => [r.currency, toBaseFactor(r)] as const),
    ],
  }
}

export async function listHolidays(tx: Tx, from: Day, until: Day): Promise<Day[]> {
  const found = await rows<{ day: Day }>(
    tx,
    sql`select day::text as day from holiday where day between ${from} and ${until} order by day`,
  )
  return found.map((h) => h.day)
}
