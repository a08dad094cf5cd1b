import { check, date, index, integer, numeric, pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import { budgetLine } from './budget'
import { item } from './catalogue'
import { person, shipTo } from './people'
import { job } from './request-form'

/** The own page of a job: when and where it is done, and which budget line pays. */
export const jobPlan = pgTable('job_plan', {
  jobId: uuid('job_id')
    .primaryKey()
    .references(() => job.id, { onDelete: 'cascade' }),
  version: integer().notNull().default(1),
  startsOn: date('starts_on'),
  endsOn: date('ends_on'),
  shipToId: uuid('ship_to_id').references(() => shipTo.id),
  /** Of whichever year; what it says pays in the year in which something is raised. */
  budgetLineId: uuid('budget_line_id').references(() => budgetLine.id),
})

/** Who is at work on a job. */
export const jobPerson = pgTable(
  'job_person',
  {
    jobId: uuid('job_id')
      .notNull()
      .references(() => job.id, { onDelete: 'cascade' }),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
  },
  (t) => [primaryKey({ columns: [t.jobId, t.personId] }), index('job_person_person').on(t.personId)],
)

/** What a job needs: an item of the catalogue, or a few words. */
export const jobPart = pgTable(
  'job_part',
  {
    id: uuid().primaryKey(),
    jobId: uuid('job_id')
      .notNull()
      .references(() => job.id, { onDelete: 'cascade' }),
    position: integer().notNull(),
    /** What tells it apart within its job, in files. */
    number: text().notNull(),
    itemId: uuid('item_id').references(() => item.id),
    description: text().notNull(),
    quantity: numeric({ precision: 24, scale: 6 }).notNull(),
    unit: text().notNull(),
    /** What one is expected to cost, in the base currency; null while nobody knows. */
    estimate: numeric({ precision: 24, scale: 6 }),
  },
  (t) => [
    index('job_part_of').on(t.jobId, t.position),
    unique('job_part_number').on(t.jobId, t.number),
    check('job_part_quantity', sql`${t.quantity} > 0`),
  ],
)

/**
 * Which line of a requisition asks for which part. The line may be gone: one that is taken off a draft asks for it no
 * more, and does again where that is undone.
 */
export const jobPartLine = pgTable(
  'job_part_line',
  {
    lineId: uuid('line_id').primaryKey(),
    partId: uuid('part_id')
      .notNull()
      .references(() => jobPart.id, { onDelete: 'cascade' }),
  },
  (t) => [index('job_part_line_of').on(t.partId)],
)
