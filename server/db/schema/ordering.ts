import { check, date, index, integer, jsonb, pgTable, text, timestamp, uuid } from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import type { ItselfReason, OrderingForm } from '#core/order/by-itself'
import type { RuleState } from '#core/order/rule-moves'
import { person } from './people'

/** A rule by which approved lines are ordered by themselves, in a buyer's name. */
export const orderingRule = pgTable(
  'ordering_rule',
  {
    id: uuid().primaryKey(),
    name: text().notNull(),
    /** In whose name: their part of the organisation, their limit, their orders. */
    buyerId: uuid('buyer_id')
      .notNull()
      .references(() => person.id),
    form: jsonb().$type<OrderingForm>().notNull(),
    state: text().$type<RuleState>().notNull(),
    /** Who wrote it as it stands; whoever puts it in force is somebody else. */
    writtenById: uuid('written_by_id')
      .notNull()
      .references(() => person.id),
    confirmedById: uuid('confirmed_by_id').references(() => person.id),
    /** The last day on which it was its time. */
    ranOn: date('ran_on'),
    version: integer().notNull().default(1),
  },
  (t) => [check('ordering_rule_state', sql`${t.state} in ('draft', 'asked', 'in force', 'paused', 'ended')`)],
)

/** Why a line was left by a run. */
export interface RunLeft {
  readonly lineId: string
  readonly reason: ItselfReason
}

/** One time that a rule was carried out. Its orders name it. */
export const orderingRun = pgTable(
  'ordering_run',
  {
    id: uuid().primaryKey(),
    ruleId: uuid('rule_id')
      .notNull()
      .references(() => orderingRule.id),
    buyerId: uuid('buyer_id')
      .notNull()
      .references(() => person.id),
    /** Its rule as it was then. */
    form: jsonb().$type<OrderingForm>().notNull(),
    cause: text().$type<'approval' | 'time' | 'asked'>().notNull(),
    byId: uuid('by_id').references(() => person.id),
    beganAt: timestamp('began_at', { withTimezone: true }).notNull(),
    endedAt: timestamp('ended_at', { withTimezone: true }),
    /** How often the same was found, nothing to make and the same left, and when last. */
    times: integer().notNull().default(1),
    lastAt: timestamp('last_at', { withTimezone: true }).notNull(),
    made: integer().notNull().default(0),
    left: jsonb().$type<readonly RunLeft[]>().notNull().default([]),
    /** Why it could not be carried out to its end. */
    trouble: text(),
  },
  (t) => [
    index('ordering_run_rule').on(t.ruleId, t.beganAt),
    check('ordering_run_cause', sql`${t.cause} in ('approval', 'time', 'asked')`),
  ],
)
