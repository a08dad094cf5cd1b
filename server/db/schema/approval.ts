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
  unique,
  uuid,
} from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import type { Condition, Policy, SentSubject, Who } from '#core/approval/policy'
import type { Route, SeatReason } from '#core/approval/route'
import { document } from './document'
import { person } from './people'

/** How far the route of a sending came. */
export type RouteState = 'open' | 'held' | 'approved' | 'stopped'
export type DecisionOutcome = 'approved' | 'sent back' | 'rejected'

export const approvalPolicy = pgTable(
  'approval_policy',
  {
    id: uuid().primaryKey().defaultRandom(),
    name: text().notNull(),
    inForceFrom: date('in_force_from').notNull(),
    ending: text().$type<Policy['ending']>().notNull(),
    fallbackId: uuid('fallback_id').references(() => person.id),
    /** Over how many days requests that name a same supplier are held against an own limit together; null: never. */
    ownLimitDays: integer('own_limit_days'),
  },
  (t) => [
    check('approval_policy_ending', sql`${t.ending} in ('fallback', 'passes')`),
    check('approval_policy_own_limit_days', sql`${t.ownLimitDays} between 1 and 400`),
  ],
)

export const approvalRule = pgTable(
  'approval_rule',
  {
    id: uuid().primaryKey().defaultRandom(),
    policyId: uuid('policy_id')
      .notNull()
      .references(() => approvalPolicy.id),
    position: integer().notNull(),
    name: text().notNull(),
    conditions: jsonb().$type<Condition[]>().notNull(),
    sparesManagers: boolean('spares_managers').notNull().default(false),
  },
  (t) => [unique('approval_rule_position').on(t.policyId, t.position)],
)

export const approvalStep = pgTable(
  'approval_step',
  {
    id: uuid().primaryKey().defaultRandom(),
    ruleId: uuid('rule_id')
      .notNull()
      .references(() => approvalRule.id),
    position: integer().notNull(),
    rank: integer().notNull(),
    who: jsonb().$type<Who>().notNull(),
    mustCover: boolean('must_cover').notNull().default(false),
  },
  (t) => [unique('approval_step_position').on(t.ruleId, t.position)],
)

/** The route of one sending of a document, as it was last worked out. */
export const approvalRoute = pgTable(
  'approval_route',
  {
    id: uuid().primaryKey().defaultRandom(),
    documentKind: text('document_kind').notNull(),
    documentId: uuid('document_id')
      .notNull()
      .references(() => document.id),
    round: integer().notNull(),
    state: text().$type<RouteState>().notNull(),
    amount: numeric({ precision: 20, scale: 4 }).notNull(),
    currency: text().notNull(),
    route: jsonb().$type<Route>().notNull(),
    /** What was sent, frozen: routing again starts from it. */
    sent: jsonb().$type<SentSubject>().notNull(),
    /** It came back with no more than the sending before, whose approvals go on to stand. */
    keepsEarlier: boolean('keeps_earlier').notNull().default(false),
    createdAt: timestamp('created_at', { withTimezone: true }).notNull(),
  },
  (t) => [
    unique('approval_route_round').on(t.documentId, t.round),
    check('approval_route_state', sql`${t.state} in ('open', 'held', 'approved', 'stopped')`),
  ],
)

/** Who is asked on a route: one row a person and step. */
export const approvalSeat = pgTable(
  'approval_seat',
  {
    id: uuid().primaryKey().defaultRandom(),
    routeId: uuid('route_id')
      .notNull()
      .references(() => approvalRoute.id),
    documentId: uuid('document_id').notNull(),
    stepAt: integer('step_at').notNull(),
    actorId: uuid('actor_id')
      .notNull()
      .references(() => person.id),
    forId: uuid('for_id').references(() => person.id),
    why: jsonb().$type<SeatReason>().notNull(),
    state: text().notNull(),
    openedAt: timestamp('opened_at', { withTimezone: true }),
  },
  (t) => [
    index('approval_seat_waiting')
      .on(t.actorId, t.openedAt)
      .where(sql`${t.state} = 'open'`),
    index('approval_seat_document').on(t.documentId),
    index('approval_seat_route').on(t.routeId),
    check('approval_seat_state', sql`${t.state} in ('ahead', 'open', 'decided', 'met', 'dropped')`),
  ],
)

/** What was decided; a decision taken back stays, marked. */
export const approvalDecision = pgTable(
  'approval_decision',
  {
    id: uuid().primaryKey().defaultRandom(),
    routeId: uuid('route_id')
      .notNull()
      .references(() => approvalRoute.id),
    documentId: uuid('document_id').notNull(),
    actorId: uuid('actor_id')
      .notNull()
      .references(() => person.id),
    forId: uuid('for_id').references(() => person.id),
    outcome: text().$type<DecisionOutcome>().notNull(),
    comment: text().notNull().default(''),
    at: timestamp({ withTimezone: true }).notNull(),
    /** The event after which nobody else may have acted for it to be taken back. */
    eventSeq: integer('event_seq').notNull(),
    takenBackAt: timestamp('taken_back_at', { withTimezone: true }),
  },
  (t) => [
    index('approval_decision_document').on(t.documentId),
    check('approval_decision_outcome', sql`${t.outcome} in ('approved', 'sent back', 'rejected')`),
  ],
)
