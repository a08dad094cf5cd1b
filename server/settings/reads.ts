import { sql } from 'drizzle-orm'
import { type Day, dayOf } from '#core/base/day'
import { dec, type DecimalText } from '#core/base/decimal'
import type { Retention } from '#core/people/retention'
import type { SecondFactorFor } from '#core/people/person'
import type { NewSupplierPolicy } from '#core/requisition/form'
import type { Tx } from '../db/client'
import { notSetUp } from '../http/problem'
import { named, read, readOne } from '../db/read'
import { exchangeRate, fiscalPeriod, holiday, organisation, taxCode } from '../db/schema/settings'

const o = named(organisation, 'o')
const t = named(taxCode, 't')
const p = named(fiscalPeriod, 'p')
const x = named(exchangeRate, 'x')

export interface Organisation {
  readonly name: string
  readonly address: string
  readonly letterhead: string
  readonly timeZone: string
  readonly baseCurrency: string
  readonly fiscalStartMonth: number
  readonly orderTolerancePercent: DecimalText
  readonly orderToleranceAmount: DecimalText
  readonly mailFrom: string
  readonly secondFactorFor: SecondFactorFor
  readonly kept: Retention
  readonly isDemo: boolean
  /** Whether somebody who raises may name a supplier that is not there yet. */
  readonly newSuppliers: NewSupplierPolicy
  /** The version of what is asked for with requisitions. */
  readonly formVersion: number
}

const ORGANISATION = {
  name: o.name,
  address: o.address,
  letterhead: o.letterhead,
  timeZone: o.timeZone,
  baseCurrency: o.baseCurrency,
  fiscalStartMonth: o.fiscalStartMonth,
  orderTolerancePercent: o.orderTolerancePercent,
  orderToleranceAmount: o.orderToleranceAmount,
  mailFrom: o.mailFrom,
  secondFactorFor: o.secondFactorFor,
  kept: sql<Retention>`json_build_object('sessions', ${o.keepSessionsDays}, 'notices', ${o.keepNoticesDays},
    'letters', ${o.keepLettersDays}, 'people', ${o.keepPeopleDays})`,
  isDemo: sql<boolean>`${o.isDemo} = 1`,
  newSuppliers: o.newSuppliers,
  formVersion: o.formVersion,
}

function present<T>(found: T | null): T {
  if (found === null) throw notSetUp()
  return found
}

/** Whether an organisation is entered. */
export async function isSetUp(tx: Tx): Promise<boolean> {
  return (await readOne(tx, { id: o.id }, sql`from ${o} where ${o.id} = 1`)) !== null
}

/** Who we are; an error when nothing was loaded yet. */
export async function requireOrganisation(tx: Tx): Promise<Organisation> {
  return present(await readOne(tx, { ...ORGANISATION }, sql`from ${o} where ${o.id} = 1`))
}

/** The version of what is asked for with requisitions, with the right to change it until the transaction ends. */
export async function lockFormVersion(tx: Tx): Promise<number> {
  return present(
    await readOne(
      tx,
      { version: organisation.formVersion },
      sql`from ${organisation} where ${organisation.id} = 1 for no key update`,
    ),
  ).version
}

export interface TaxCode {
  readonly code: string
  readonly name: string
  readonly category: string
  readonly rate: DecimalText
  /** It is offered no more; what names it keeps it. */
  readonly retired: boolean
}

/** What documents are computed by on a day. */
export interface Terms {
  readonly organisation: Organisation
  readonly today: Day
  readonly taxCodes: readonly TaxCode[]
  /** Units of each currency for one of the base: the newest rate on or before the day; the base itself is 1. */
  readonly perBase: readonly (readonly [currency: string, rate: DecimalText])[]
  readonly closedPeriods: readonly { readonly year: number; readonly period: number }[]
}

/**
 * The terms at a moment; rates are those of `rateDay` (an accounting date), or of today. One statement, as every
 * sending needs it.
 */
export async function requireTerms(tx: Tx, now: Date, rateDay: Day | null = null): Promise<Terms> {
  const found = present(
    await readOne(
      tx,
      {
        ...ORGANISATION,
        taxCodes: sql<
          TaxCode[]
        >`(select coalesce(json_agg(json_build_object('code', ${t.code}, 'name', ${t.name}, 'category', ${t.category},
        'rate',
        trim_scale(${t.rate})::text, 'retired', ${t.retired}) order by ${t.rate} desc, ${t.code}), '[]')
        from ${t})`,
        rates: sql<{ currency: string; perBase: DecimalText; day: Day }[]>`(
          select coalesce(json_agg(json_build_object('currency', ${x.currency}, 'perBase',
            trim_scale(${x.perBase})::text, 'day', ${x.day})), '[]')
          from (select distinct on (${x.currency}) ${x.currency}, ${x.perBase}, ${x.day} from ${x}
            where ${x.day} <= coalesce(${rateDay}::date,
              (${now.toISOString()}::timestamptz at time zone ${o.timeZone})::date)
            order by ${x.currency}, ${x.day} desc) x)`,
        closedPeriods: sql<
          { year: number; period: number }[]
        >`(select coalesce(json_agg(json_build_object('year', ${p.year}, 'period', ${p.period})), '[]') from ${p}
        where ${p.closedAt} <= ${now.toISOString()})`,
      },
      sql`from ${o} where ${o.id} = 1`,
    ),
  )
  const { taxCodes, closedPeriods, rates, ...organisation } = found
  return {
    organisation,
    today: dayOf(now, organisation.timeZone),
    taxCodes,
    closedPeriods,
    perBase: [
      [organisation.baseCurrency, '1'],
      // One of the base is one of the base, whatever a list of rates says of it.
      ...rates
        .filter((r) => dec(r.perBase).isPositive() && r.currency !== organisation.baseCurrency)
        .map((r) => [r.currency, r.perBase] as const),
    ],
  }
}

export async function listHolidays(tx: Tx, from: Day, until: Day): Promise<Day[]> {
  const found = await read(
    tx,
    { day: holiday.day },
    sql`from ${holiday} where ${holiday.day} between ${from} and ${until} and ${holiday.isOff} order by ${holiday.day}`,
  )
  return found.map((h) => h.day)
}
