import { boolean, check, integer, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import type { OwnField } from '#core/requisition/own-field'
import type { RequestRule } from '#core/requisition/rules'
import { department } from './people'

/** The kinds of requisitions: each has a series of numbers, and chooses own fields and rules. */
export const requestKind = pgTable(
  'request_kind',
  {
    code: text().primaryKey(),
    name: text().notNull(),
    help: text().notNull().default(''),
    series: text().notNull().default('R'),
    position: integer().notNull().default(0),
    /** What is added to a job is asked for by itself, as a request of this kind. */
    raisesParts: boolean('raises_parts').notNull().default(false),
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
