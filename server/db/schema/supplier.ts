import {
  type AnyPgColumn,
  check,
  date,
  index,
  integer,
  jsonb,
  numeric,
  pgTable,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import type { PaymentTerms } from '#core/base/day'
import type { BankDetails } from '#core/supplier/bank'
import type { Language } from '#core/supplier/language'
import type { ContactUse } from '#core/supplier/record'
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
    /** Of what is kept on its own page: contacts, warning, standing, bank, documents. */
    version: integer().notNull().default(1),
    /** active, on hold, blocked, proposed, refused, merged: only an active one may be ordered from. */
    standing: text().notNull().default('active'),
    /** Why it stands so, since when, and until which day; a hold ends by itself after that. */
    standingReason: text('standing_reason').notNull().default(''),
    standingSince: timestamp('standing_since', { withTimezone: true }),
    standingUntil: date('standing_until'),
    /** The supplier that this one turned out to be. */
    mergedIntoId: uuid('merged_into_id').references((): AnyPgColumn => supplier.id),
    /** What people are warned of today. */
    warning: text(),
    warningMode: text('warning_mode').notNull().default('informs'),
    /** A warning that is said on some days only; in force it stands above as well. */
    datedWarning: text('dated_warning'),
    warningFrom: date('warning_from'),
    warningUntil: date('warning_until'),
    /** Where it is paid to. */
    bank: jsonb().$type<BankDetails>(),
    /** Where orders went before the address was changed, and when that was. */
    emailBefore: text('email_before'),
    emailChangedAt: timestamp('email_changed_at', { withTimezone: true }),
    taxNumber: text('tax_number'),
    telephone: text().notNull().default(''),
    /** Who proposed it and when, what they said, and its tax form. */
    proposedById: uuid('proposed_by_id').references(() => person.id),
    proposedAt: timestamp('proposed_at', { withTimezone: true }),
    proposalNote: text('proposal_note').notNull().default(''),
    taxFormHash: text('tax_form_hash').references(() => file.hash),
    freight: numeric({ precision: 20, scale: 4 }),
    freightFreeFrom: numeric('freight_free_from', { precision: 20, scale: 4 }),
    /** The least value of goods that it takes an order for, in its currency. */
    minimumOrder: numeric('minimum_order', { precision: 20, scale: 4 }),
    /** In which its orders are written. */
    language: text().$type<Language>().notNull().default('en'),
  },
  (t) => [
    // One supplier has one tax number, whatever its spaces and points; what was refused or merged holds none.
    uniqueIndex('supplier_one_tax_number')
      .on(sql`(upper(regexp_replace(${t.taxNumber}, '[^A-Za-z0-9]', '', 'g')))`)
      .where(sql`${t.standing} not in ('refused', 'merged') and ${t.taxNumber} ~ '[A-Za-z0-9]'`),
    index('supplier_name_parts').using('gin', sql`lower(${t.name}) gin_trgm_ops`),
    check('supplier_standing', sql`${t.standing} in ('active', 'on hold', 'blocked', 'proposed', 'refused', 'merged')`),
    check('supplier_merged', sql`(${t.standing} = 'merged') = (${t.mergedIntoId} is not null)`),
    check('supplier_warning_mode', sql`${t.warningMode} in ('informs', 'must be read', 'stops')`),
    check('supplier_language', sql`${t.language} in ('en', 'de', 'fr')`),
    check('supplier_minimum_order', sql`${t.minimumOrder} >= 0`),
    check('supplier_terms', sql`${t.termsKind} in ('net', 'month-end')`),
  ],
)

/** Who is spoken to there, about what, and where things of that kind go. */
export const supplierContact = pgTable(
  'supplier_contact',
  {
    id: uuid().primaryKey().defaultRandom(),
    supplierId: uuid('supplier_id')
      .notNull()
      .references(() => supplier.id, { onDelete: 'cascade' }),
    position: integer().notNull(),
    name: text().notNull(),
    about: text().$type<ContactUse>().notNull(),
    email: text().notNull().default(''),
    telephone: text().notNull().default(''),
    address: text().notNull().default(''),
  },
  (t) => [index('supplier_contact_of').on(t.supplierId, t.position)],
)

/** A paper about a supplier: an insurance, a certificate, until it ends. */
export const supplierDocument = pgTable(
  'supplier_document',
  {
    id: uuid().primaryKey().defaultRandom(),
    supplierId: uuid('supplier_id')
      .notNull()
      .references(() => supplier.id, { onDelete: 'cascade' }),
    name: text().notNull(),
    validUntil: date('valid_until'),
    fileHash: text('file_hash')
      .notNull()
      .references(() => file.hash),
    addedById: uuid('added_by_id')
      .notNull()
      .references(() => person.id),
    addedAt: timestamp('added_at', { withTimezone: true }).notNull(),
    /** When people were told that it ends. */
    remindedAt: timestamp('reminded_at', { withTimezone: true }),
  },
  (t) => [
    index('supplier_document_of').on(t.supplierId),
    index('supplier_document_file').on(t.fileHash),
    index('supplier_document_ends').on(t.validUntil),
  ],
)

/** A change of bank details, until a second person confirms it. */
export const bankChange = pgTable('bank_change', {
  supplierId: uuid('supplier_id')
    .primaryKey()
    .references(() => supplier.id, { onDelete: 'cascade' }),
  details: jsonb().$type<BankDetails>().notNull(),
  byId: uuid('by_id')
    .notNull()
    .references(() => person.id),
  at: timestamp({ withTimezone: true }).notNull(),
  /** The addresses at the supplier that were told. */
  toldTo: jsonb('told_to').$type<readonly string[]>().notNull(),
})
