import {
  boolean,
  check,
  date,
  index,
  integer,
  numeric,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uuid,
} from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import type { AgreementFixes } from '#core/agreement/fit'
import type { PaymentTerms } from '#core/base/day'
import { item } from './catalogue'
import { person } from './people'
import { supplier } from './supplier'

/** A framework agreement with a supplier, on which orders draw. */
export const agreement = pgTable(
  'agreement',
  {
    id: uuid().primaryKey(),
    number: text().notNull().unique(),
    name: text().notNull(),
    /** Its number in the supplier's own papers. */
    theirNumber: text('their_number').notNull().default(''),
    supplierId: uuid('supplier_id')
      .notNull()
      .references(() => supplier.id),
    currency: text().notNull(),
    startsOn: date('starts_on').notNull(),
    endsOn: date('ends_on').notNull(),
    fixes: text().$type<AgreementFixes>().notNull(),
    /** The most that may be drawn, net; null: no ceiling. */
    ceiling: numeric({ precision: 20, scale: 4 }),
    /** The net of the orders that draw on it, counted beside them: every one that moves it locks this row. */
    drawn: numeric({ precision: 20, scale: 4 }).notNull().default('0'),
    /** From this share of the ceiling on documents carry a warning. */
    warnPercent: numeric('warn_percent', { precision: 5, scale: 2 }),
    /** So many days before its end they do. */
    warnDays: integer('warn_days').notNull(),
    /** By when it is to be decided whether it goes on, and when its keeper was told of that day. */
    renewOn: date('renew_on'),
    renewalToldAt: timestamp('renewal_told_at', { withTimezone: true }),
    /** Payment terms that it agrees; null: the supplier's. */
    termsKind: text('terms_kind').$type<PaymentTerms['kind']>(),
    termsDays: integer('terms_days'),
    /** Who may draw: these departments and all below them; none named: everybody. */
    departmentIds: uuid('department_ids').array().notNull().default([]),
    note: text().notNull().default(''),
    /** Who looks after it and is told of it. */
    keeperId: uuid('keeper_id')
      .notNull()
      .references(() => person.id),
    isClosed: boolean('is_closed').notNull().default(false),
    /** Whether it is in force today: kept by the hour, for the catalogue's lists alone. */
    isInForce: boolean('is_in_force').notNull(),
    version: integer().notNull().default(1),
  },
  (t) => [
    index('agreement_supplier').on(t.supplierId),
    check('agreement_fixes', sql`${t.fixes} in ('items', 'sum')`),
    check('agreement_term', sql`${t.startsOn} <= ${t.endsOn}`),
    check('agreement_ceiling', sql`${t.ceiling} > 0`),
    check('agreement_warn_percent', sql`${t.warnPercent} > 0 and ${t.warnPercent} <= 100`),
    check('agreement_terms', sql`(${t.termsKind} is null) = (${t.termsDays} is null)`),
  ],
)

/** What stands in an agreement that fixes its items. */
export const agreementItem = pgTable(
  'agreement_item',
  {
    agreementId: uuid('agreement_id')
      .notNull()
      .references(() => agreement.id, { onDelete: 'cascade' }),
    itemId: uuid('item_id')
      .notNull()
      .references(() => item.id),
    position: integer().notNull(),
    /** For the item's price base, in the agreement's currency; null: as the catalogue says. */
    unitPrice: numeric('unit_price', { precision: 24, scale: 6 }),
  },
  (t) => [
    primaryKey({ columns: [t.agreementId, t.itemId] }),
    index('agreement_item_item').on(t.itemId),
    check('agreement_item_price', sql`${t.unitPrice} >= 0`),
  ],
)
