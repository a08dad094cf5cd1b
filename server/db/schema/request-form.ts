import {
  type AnyPgColumn,
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
  unique,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import type { Draft } from '#core/requisition/draft'
import type { OwnField } from '#core/requisition/own-field'
import type { RequestRule } from '#core/requisition/rules'
import type { Rhythm } from '#core/requisition/rhythm'
import { department, person } from './people'
import { supplier } from './supplier'
import { item } from './catalogue'

/** The kinds of requisitions: each has a series of numbers, and chooses own fields and rules. */
export const requestKind = pgTable(
  'request_kind',
  {
    code: text().primaryKey(),
    name: text().notNull(),
    help: text().notNull().default(''),
    series: text().notNull().default('R'),
    position: integer().notNull().default(0),
    /** No longer offered; documents of this kind keep its name. */
    retired: boolean().notNull().default(false),
  },
  (t) => [
    uniqueIndex('request_kind_name')
      .on(t.name)
      .where(sql`not ${t.retired}`),
    check('request_kind_series', sql`${t.series} ~ '^[A-Z]{1,3}$' and ${t.series} not in ('P', 'SUP')`),
  ],
)

/** A piece of the organisation's work that something is bought for. */
export const job = pgTable('job', {
  id: uuid().primaryKey().defaultRandom(),
  number: text().notNull().unique(),
  name: text().notNull(),
  departmentId: uuid('department_id').references(() => department.id),
  projectCode: text('project_code'),
  isOpen: boolean('is_open').notNull().default(true),
})

/** An extra field that an administrator asks for. Empty lists are all. */
export const ownField = pgTable(
  'own_field',
  {
    id: uuid().primaryKey().defaultRandom(),
    position: integer().notNull(),
    name: text().notNull(),
    help: text().notNull().default(''),
    appliesOn: text('applies_on').$type<OwnField['on']>().notNull(),
    type: text().$type<OwnField['type']>().notNull(),
    required: boolean().notNull().default(false),
    kinds: text().array().notNull().default([]),
    departmentIds: uuid('department_ids').array().notNull().default([]),
    categoryIds: uuid('category_ids').array().notNull().default([]),
    choices: text().array().notNull().default([]),
    /** No longer asked for; what was written into it stays on documents. */
    retired: boolean().notNull().default(false),
  },
  (t) => [
    uniqueIndex('own_field_name')
      .on(t.appliesOn, t.name)
      .where(sql`not ${t.retired}`),
    check('own_field_on', sql`${t.appliesOn} in ('requisition', 'line')`),
  ],
)

/** What is asked for with some requests: quotes, attachments, a justification, something to be read. */
export const requestRule = pgTable('request_rule', {
  id: uuid().primaryKey().defaultRandom(),
  position: integer().notNull(),
  name: text().notNull(),
  conditions: jsonb().$type<RequestRule['when']>().notNull(),
  asks: jsonb().$type<RequestRule['asks']>().notNull(),
})

/** A list of things bought again and again: a person's, or a department's. */
export const regularList = pgTable(
  'regular_list',
  {
    id: uuid().primaryKey().defaultRandom(),
    version: integer().notNull().default(1),
    name: text().notNull(),
    ownerId: uuid('owner_id').references((): AnyPgColumn => person.id),
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
      sql`${t.repeats} in ('week', 'two weeks', 'month', 'quarter', 'year') and (${t.repeats} is null) = (${t.nextOn} is null) and (${t.repeats} is null) = (${t.startsOn} is null)`,
    ),
    check('template_needed_after', sql`${t.neededAfter} between 1 and 250`),
  ],
)

/** How a person likes to see a place: its address without the path. */
export const savedView = pgTable(
  'saved_view',
  {
    id: uuid().primaryKey().defaultRandom(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    place: text().notNull(),
    name: text().notNull(),
    query: text().notNull(),
  },
  (t) => [unique('saved_view_name').on(t.personId, t.place, t.name)],
)
