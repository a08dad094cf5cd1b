import { check, integer, numeric, pgTable, text, uuid } from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'

export const supplier = pgTable('supplier', {
  id: uuid().primaryKey().defaultRandom(),
  number: text().notNull().unique(),
  name: text().notNull(),
  town: text().notNull().default(''),
  address: text().notNull().default(''),
  email: text(),
  currency: text().notNull(),
  /** Payment terms: 'net' or 'month-end', and days. */
  termsKind: text('terms_kind').notNull().default('net'),
  termsDays: integer('terms_days').notNull().default(30),
  leadDays: integer('lead_days').notNull().default(5),
  /** active, on hold, proposed: only an active one may be ordered from. */
  standing: text().notNull().default('active'),
  warning: text(),
  freight: numeric({ precision: 20, scale: 2 }),
  freightFreeFrom: numeric('freight_free_from', { precision: 20, scale: 2 }),
}, (t) => [
  check('supplier_standing', sql`${t.standing} in ('active', 'on hold', 'proposed')`),
  check('supplier_terms', sql`${t.termsKind} in ('net', 'month-end')`),
])
