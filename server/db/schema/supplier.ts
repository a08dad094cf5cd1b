import { check, index, integer, numeric, pgTable, text, timestamp, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import type { PaymentTerms } from '#core/base/day'
import { file } from './file'
import { person } from './people'

export const supplier = pgTable(
  'supplier',
  {
    id: uuid().primaryKey().defaultRandom(),
    number: text().notNull().unique(),
    name: text().notNull(),
    town: text().notNull().default(''),
    address: text().notNull().default(''),
    email: text(),
    /** How orders reach it; the channel knows which of its addresses it takes. */
    channel: text().notNull().default('e-mail'),
    currency: text().notNull(),
    /** Payment terms: 'net' or 'month-end', and days. */
    termsKind: text('terms_kind').$type<PaymentTerms['kind']>().notNull().default('net'),
    termsDays: integer('terms_days').notNull().default(30),
    leadDays: integer('lead_days').notNull().default(5),
    /** active, on hold, proposed, refused: only an active one may be ordered from. */
    standing: text().notNull().default('active'),
    warning: text(),
    warningMode: text('warning_mode').notNull().default('informs'),
    taxNumber: text('tax_number'),
    telephone: text().notNull().default(''),
    /** Who proposed it and when, what they said, and its tax form. */
    proposedById: uuid('proposed_by_id').references(() => person.id),
    proposedAt: timestamp('proposed_at', { withTimezone: true }),
    proposalNote: text('proposal_note').notNull().default(''),
    taxFormHash: text('tax_form_hash').references(() => file.hash),
    freight: numeric({ precision: 20, scale: 4 }),
    freightFreeFrom: numeric('freight_free_from', { precision: 20, scale: 4 }),
  },
  (t) => [
    // One supplier has one tax number, whatever its spaces and points; a refused proposal holds none.
    uniqueIndex('supplier_one_tax_number')
      .on(sql`(upper(regexp_replace(${t.taxNumber}, '[^A-Za-z0-9]', '', 'g')))`)
      .where(sql`${t.standing} <> 'refused' and ${t.taxNumber} ~ '[A-Za-z0-9]'`),
    index('supplier_name_parts').using('gin', sql`lower(${t.name}) gin_trgm_ops`),
    check('supplier_standing', sql`${t.standing} in ('active', 'on hold', 'proposed', 'refused')`),
    check('supplier_warning_mode', sql`${t.warningMode} in ('informs', 'must be read', 'stops')`),
    check('supplier_terms', sql`${t.termsKind} in ('net', 'month-end')`),
  ],
)
