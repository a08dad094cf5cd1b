import {
  boolean,
  check,
  date,
  index,
  integer,
  jsonb,
  numeric,
  pgTable,
  text,
  timestamp,
  uuid,
} from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import type { Draft } from '#core/requisition/draft'
import type { Rhythm } from '#core/requisition/rhythm'
import { item } from './catalogue'
import { department, person } from './people'
import { supplier } from './supplier'

/** A list of things bought again and again: a person's, or a department's. */
export const regularList = pgTable(
  'regular_list',
  {
    id: uuid().primaryKey().defaultRandom(),
    version: integer().notNull().default(1),
    name: text().notNull(),
    ownerId: uuid('owner_id').references(() => person.id),
    departmentId: uuid('department_id').references(() => department.id),
  },
  (t) => [
    index('regular_list_owner').on(t.ownerId),
    check('regular_list_whose', sql`num_nonnulls(${t.ownerId}, ${t.departmentId}) = 1`),
  ],
)

export const regular = pgTable(
  'regular',
  {
    id: uuid().primaryKey().defaultRandom(),
    listId: uuid('list_id')
      .notNull()
      .references(() => regularList.id, { onDelete: 'cascade' }),
    position: integer().notNull(),
    itemId: uuid('item_id').references(() => item.id),
    description: text().notNull(),
    quantity: numeric({ precision: 24, scale: 6 }).notNull(),
    unit: text().notNull(),
    unitPrice: numeric('unit_price', { precision: 24, scale: 6 }),
    priceBase: numeric('price_base', { precision: 20, scale: 6 }).notNull().default('1'),
    currency: text().notNull(),
    taxCode: text('tax_code').notNull(),
    supplierId: uuid('supplier_id').references(() => supplier.id),
    supplierPart: text('supplier_part'),
  },
  (t) => [index('regular_of').on(t.listId, t.position)],
)

/** A requisition to begin from; with a rhythm it is raised again by itself. */
export const template = pgTable(
  'template',
  {
    id: uuid().primaryKey(),
    version: integer().notNull().default(1),
    name: text().notNull(),
    ownerId: uuid('owner_id')
      .notNull()
      .references(() => person.id),
    /** Shared with everybody who may raise for this department; null is personal. */
    departmentId: uuid('department_id').references(() => department.id),
    draft: jsonb().$type<Draft>().notNull(),
    repeats: text().$type<Rhythm>(),
    startsOn: date('starts_on'),
    nextOn: date('next_on'),
    /** True: it sends itself; false: it waits for a look. */
    sendsItself: boolean('sends_itself').notNull().default(false),
    /** How many business days after it is raised it is needed. */
    neededAfter: integer('needed_after').notNull().default(10),
    createdAt: timestamp('created_at', { withTimezone: true }).notNull(),
  },
  (t) => [
    index('template_owner').on(t.ownerId),
    index('template_due')
      .on(t.nextOn)
      .where(sql`${t.nextOn} is not null`),
    check(
      'template_repeats',
      sql`${t.repeats} in ('week', 'two weeks', 'month', 'quarter', 'year')
        and (${t.repeats} is null) = (${t.nextOn} is null) and (${t.repeats} is null) = (${t.startsOn} is null)`,
    ),
    check('template_needed_after', sql`${t.neededAfter} between 1 and 250`),
  ],
)
