import {
  type AnyPgColumn,
  boolean,
  check,
  date,
  index,
  integer,
  numeric,
  pgTable,
  text,
  unique,
  uuid,
} from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import type { Drawing } from '#core/catalogue/drawing'
import { supplier } from './supplier'
import { taxCode } from './settings'
import { account } from './budget'
import { file } from './file'

export const category = pgTable('category', {
  id: uuid().primaryKey().defaultRandom(),
  name: text().notNull().unique(),
  parentId: uuid('parent_id').references((): AnyPgColumn => category.id),
  /** The account that is proposed for what is bought in it. */
  accountCode: text('account_code').references(() => account.code),
  /** What stands beside its items that have no picture. */
  drawing: text().$type<Drawing>().notNull().default('box'),
  /** It is offered no more; what names it keeps it. */
  retired: boolean().notNull().default(false),
})

export const item = pgTable(
  'item',
  {
    id: uuid().primaryKey().defaultRandom(),
    number: text().notNull().unique(),
    name: text().notNull(),
    description: text().notNull().default(''),
    categoryId: uuid('category_id')
      .notNull()
      .references(() => category.id),
    supplierId: uuid('supplier_id')
      .notNull()
      .references(() => supplier.id),
    supplierPart: text('supplier_part').notNull(),
    unit: text().notNull(),
    priceBase: numeric('price_base', { precision: 20, scale: 6 }).notNull().default('1'),
    currency: text().notNull(),
    taxCode: text('tax_code')
      .notNull()
      .references(() => taxCode.code),
    leadDays: integer('lead_days').notNull(),
    packSize: numeric('pack_size', { precision: 20, scale: 6 }),
    hasAgreement: integer('has_agreement').notNull().default(0),
    warning: text(),
    warningMode: text('warning_mode').notNull().default('informs'),
    /** Another supplier's item that is the same thing to whoever needs it. */
    sameAsId: uuid('same_as_id').references((): AnyPgColumn => item.id),
    /** What is offered instead once it is retired. */
    successorId: uuid('successor_id').references((): AnyPgColumn => item.id),
    /** It is found no more; what names it keeps it. */
    retired: boolean().notNull().default(false),
    /** Name, part numbers and supplier in one lower-case text, for the search. */
    searchText: text('search_text').notNull(),
  },
  (t) => [
    unique('item_supplier_part').on(t.supplierId, t.supplierPart),
    check('item_warning_mode', sql`${t.warningMode} in ('informs', 'must be read', 'stops')`),
    index('item_same_as').on(t.sameAsId),
    index('item_category').on(t.categoryId),
    index('item_supplier').on(t.supplierId),
    // Browsing goes by name.
    index('item_name')
      .on(t.name, t.id)
      .where(sql`not ${t.retired}`),
    index('item_search').using('gin', sql`${t.searchText} gin_trgm_ops`),
  ],
)

/**
 * The words that stand in the catalogue, for words that are misspelt. The database adds those of every item that is
 * written.
 */
export const knownWord = pgTable(
  'known_word',
  {
    word: text().primaryKey(),
    /** Its letters in order, by which letters that changed places are found. */
    letters: text().notNull(),
  },
  (t) => [
    index('known_word_alike').using('gin', sql`${t.word} gin_trgm_ops`),
    index('known_word_letters').on(t.letters),
  ],
)

export const itemPrice = pgTable(
  'item_price',
  {
    id: uuid().primaryKey().defaultRandom(),
    itemId: uuid('item_id')
      .notNull()
      .references(() => item.id),
    fromQuantity: numeric('from_quantity', { precision: 20, scale: 6 }).notNull(),
    unitPrice: numeric('unit_price', { precision: 20, scale: 6 }).notNull(),
    validFrom: date('valid_from'),
    validUntil: date('valid_until'),
  },
  (t) => [
    index('item_price_item').on(t.itemId),
    check('item_price_sound', sql`${t.unitPrice} >= 0 and ${t.fromQuantity} >= 0`),
  ],
)

/** Pictures of an item, the first of which stands for it. */
export const itemPicture = pgTable(
  'item_picture',
  {
    id: uuid().primaryKey().defaultRandom(),
    itemId: uuid('item_id')
      .notNull()
      .references(() => item.id, { onDelete: 'cascade' }),
    position: integer().notNull(),
    name: text().notNull(),
    fileHash: text('file_hash')
      .notNull()
      .references(() => file.hash),
  },
  (t) => [index('item_picture_of').on(t.itemId, t.position), index('item_picture_file').on(t.fileHash)],
)
