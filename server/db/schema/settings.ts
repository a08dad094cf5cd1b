import { boolean, check, date, integer, numeric, pgTable, primaryKey, text, timestamp } from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import type { ListName } from '#core/lists/list'
import type { SecondFactorFor } from '#core/people/person'
import type { NewSupplierPolicy } from '#core/requisition/form'

/** One row: who we are and how we count. */
export const organisation = pgTable(
  'organisation',
  {
    id: integer().primaryKey().default(1),
    name: text().notNull(),
    address: text().notNull(),
    /** What else stands under the name on papers: telephone, register, tax number; "" is nothing. */
    letterhead: text().notNull().default(''),
    timeZone: text('time_zone').notNull(),
    baseCurrency: text('base_currency').notNull(),
    fiscalStartMonth: integer('fiscal_start_month').notNull(),
    orderTolerancePercent: numeric('order_tolerance_percent', { precision: 5, scale: 2 }).notNull(),
    orderToleranceAmount: numeric('order_tolerance_amount', { precision: 20, scale: 4 }).notNull(),
    mailFrom: text('mail_from').notNull(),
    /** Whether somebody who raises may name a supplier that is not there yet. */
    newSuppliers: text('new_suppliers').$type<NewSupplierPolicy>().notNull().default('propose'),
    /**
     * The version of what is asked for with requisitions: kinds, own fields, rules and new suppliers, kept as a whole.
     */
    formVersion: integer('form_version').notNull().default(1),
    /** Of whom a second factor is asked when they sign in. */
    secondFactorFor: text('second_factor_for').$type<SecondFactorFor>().notNull().default('nobody'),
    /** For how many days sessions that ended, read notices, letters and people who left are kept; null: for good. */
    keepSessionsDays: integer('keep_sessions_days').default(30),
    keepNoticesDays: integer('keep_notices_days'),
    keepLettersDays: integer('keep_letters_days'),
    keepPeopleDays: integer('keep_people_days'),
    /** The version of who we are and how orders may exceed what was approved. */
    version: integer().notNull().default(1),
    isDemo: integer('is_demo').notNull().default(0),
  },
  (t) => [
    check('organisation_one', sql`${t.id} = 1`),
    check(
      'organisation_kept_days',
      sql`least(${t.keepSessionsDays}, ${t.keepNoticesDays}, ${t.keepLettersDays}, ${t.keepPeopleDays}) >= 1`,
    ),
    check('organisation_second_factor', sql`${t.secondFactorFor} in ('nobody', 'office', 'everybody')`),
    check('organisation_new_suppliers', sql`${t.newSuppliers} in ('nobody', 'propose', 'create')`),
  ],
)

export const holiday = pgTable('holiday', {
  day: date().primaryKey(),
  name: text().notNull(),
  /** False where it is worked after all. */
  isOff: boolean('is_off').notNull().default(true),
})

export const taxCode = pgTable('tax_code', {
  code: text().primaryKey(),
  name: text().notNull(),
  category: text().notNull(),
  rate: numeric({ precision: 6, scale: 3 }).notNull(),
  /** It is offered no more; what names it keeps it. */
  retired: boolean().notNull().default(false),
})

export const exchangeRate = pgTable(
  'exchange_rate',
  {
    day: date().notNull(),
    currency: text().notNull(),
    perBase: numeric('per_base', { precision: 20, scale: 8 }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.currency, t.day] }), check('exchange_rate_positive', sql`${t.perBase} > 0`)],
)

export const fiscalPeriod = pgTable(
  'fiscal_period',
  {
    year: integer().notNull(),
    period: integer().notNull(),
    fromDay: date('from_day').notNull(),
    untilDay: date('until_day').notNull(),
    closedAt: timestamp('closed_at', { withTimezone: true }),
  },
  (t) => [primaryKey({ columns: [t.year, t.period] })],
)

/** Gapless numbers: the row is locked last in a transaction, so that a number is only taken by what commits. */
export const numberSeries = pgTable(
  'number_series',
  {
    series: text().notNull(),
    fiscalYear: integer('fiscal_year').notNull(),
    last: integer().notNull(),
  },
  (t) => [primaryKey({ columns: [t.series, t.fiscalYear] })],
)

/** One row for each list that is kept; whoever changes one locks its row first and raises the version. */
export const keptList = pgTable('kept_list', {
  name: text().$type<ListName>().primaryKey(),
  version: integer().notNull().default(1),
})
