import {
  boolean,
  check,
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
import type { Condition, Policy, RuleDocuments, SentSubject, Who } from '#core/approval/policy'
import type { Handing } from '#core/approval/handed'
import type { MayChange, PolicyForm } from '#core/approval/policy-form'
import type { ReasonUse } from '#core/approval/reasons'
import type { DecisionOutcome } from '#core/approval/progress'
import type { Route, SeatReason } from '#core/approval/route'
import { document } from './document'
import { person } from './people'

/** How far the route of a sending came. */
export type RouteState = 'open' | 'held' | 'approved' | 'stopped'

/** A version of the policy. The newest whose moment has come, and that was not called off before, is in force. */
export const approvalPolicy = pgTable(
  'approval_policy',
  {
    id: uuid().primaryKey().defaultRandom(),
    number: integer().notNull(),
    name: text().notNull(),
    inForceAt: timestamp('in_force_at', { withTimezone: true }).notNull(),
    ending: text().$type<Policy['ending']>().notNull(),
    fallbackId: uuid('fallback_id').references(() => person.id),
    /** Over how many days requests that name a same supplier are held against an own limit together; null: never. */
    ownLimitDays: integer('own_limit_days'),
    /** After how many business days whoever is asked is reminded, and the next manager asked instead; null: never. */
    remindDays: integer('remind_days'),
    escalateDays: integer('escalate_days'),
    /** Whether a step that waits may be skipped: whoever decides in the end is asked in its place. */
    maySkip: boolean('may_skip').notNull().default(false),
    /** What whoever approves a request may change of it while approving. */
    mayChange: text('may_change').$type<MayChange>().notNull().default('nothing'),
    /** By how much an order may pass what was approved; null: as the organisation says. */
    orderTolerance: jsonb('order_tolerance').$type<PolicyForm['orderTolerance']>(),
    /** Which orders may be made without a request; null: none. */
    directOrders: jsonb('direct_orders').$type<PolicyForm['directOrders']>().default({ upTo: null }),
    /** Which decisions may be answered by mail; null: none. */
    byMail: jsonb('by_mail').$type<PolicyForm['byMail']>(),
    askedById: uuid('asked_by_id').references(() => person.id),
    askedAt: timestamp('asked_at', { withTimezone: true }),
    confirmedById: uuid('confirmed_by_id').references(() => person.id),
    confirmedAt: timestamp('confirmed_at', { withTimezone: true }),
    calledOffById: uuid('called_off_by_id').references(() => person.id),
    calledOffAt: timestamp('called_off_at', { withTimezone: true }),
  },
  (t) => [
    unique('approval_policy_number').on(t.number),
    check('approval_policy_ending', sql`${t.ending} in ('fallback', 'passes')`),
    check('approval_policy_may_change', sql`${t.mayChange} in ('nothing', 'quantities', 'quantities and payers')`),
    check('approval_policy_own_limit_days', sql`${t.ownLimitDays} between 1 and 400`),
    check('approval_policy_remind_days', sql`${t.remindDays} between 1 and 400`),
    check('approval_policy_escalate_days', sql`${t.escalateDays} between 1 and 400`),
  ],
)

/**
 * The one draft of the next version; it holds for nobody. While it waits for a second person it is not written in;
 * its row stays when it is thrown away or put in force, so that its version counts on.
 */
export const policyDraft = pgTable(
  'policy_draft',
  {
    id: integer().primaryKey().default(1),
    /** The version that it was begun from. */
    begunFrom: integer('begun_from').notNull(),
    form: jsonb().$type<PolicyForm>().notNull(),
    version: integer().notNull(),
    state: text().$type<'none' | 'written' | 'waiting'>().notNull(),
    changedById: uuid('changed_by_id')
      .notNull()
      .references(() => person.id),
    changedAt: timestamp('changed_at', { withTimezone: true }).notNull(),
    /** From when on it is to hold; null: as soon as it is confirmed. */
    inForceAt: timestamp('in_force_at', { withTimezone: true }),
    /** Whoever wrote in it since it was begun: none of them confirms it. */
    writers: jsonb().$type<string[]>().notNull(),
    askedById: uuid('asked_by_id').references(() => person.id),
    askedAt: timestamp('asked_at', { withTimezone: true }),
    /** What the second person said when they gave it back. */
    returned: text().notNull().default(''),
  },
  (t) => [
    check('policy_draft_one', sql`${t.id} = 1`),
    check('policy_draft_state', sql`${t.state} in ('none', 'written', 'waiting')`),
    check('policy_draft_asked', sql`(${t.state} = 'waiting') = (${t.askedById} is not null)`),
  ],
)

export const approvalRule = pgTable(
  'approval_rule',
  {
    id: uuid().primaryKey().defaultRandom(),
    policyId: uuid('policy_id')
      .notNull()
      .references(() => approvalPolicy.id),
    /** What the rule is known by through all versions of the policy: routes and comparisons name it by that. */
    lineage: uuid().notNull().defaultRandom(),
    position: integer().notNull(),
    name: text().notNull(),
    /** Which documents it is for. */
    documents: text().$type<RuleDocuments>().notNull().default('requests'),
    conditions: jsonb().$type<Condition[]>().notNull(),
    sparesManagers: boolean('spares_managers').notNull().default(false),
  },
  (t) => [
    unique('approval_rule_position').on(t.policyId, t.position),
    unique('approval_rule_lineage').on(t.policyId, t.lineage),
    check('approval_rule_documents', sql`${t.documents} in ('requests', 'orders', 'both')`),
  ],
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
    /** The version of the policy that it was last worked out by. */
    policyId: uuid('policy_id').references(() => approvalPolicy.id),
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
    /** When whoever sits in it was reminded by Rekko, and when it was found late: their manager is asked too. */
    remindedAt: timestamp('reminded_at', { withTimezone: true }),
    lateAt: timestamp('late_at', { withTimezone: true }),
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

/** What whoever was asked has somebody else do, for the sending of a document that it was made on. */
export const approvalHanding = pgTable(
  'approval_handing',
  {
    id: uuid().primaryKey().defaultRandom(),
    routeId: uuid('route_id')
      .notNull()
      .references(() => approvalRoute.id),
    documentId: uuid('document_id').notNull(),
    how: text().$type<Handing['how']>().notNull(),
    /** Whose place it is, and who did it: the same, unless they stood in for somebody. */
    byId: uuid('by_id')
      .notNull()
      .references(() => person.id),
    actorId: uuid('actor_id')
      .notNull()
      .references(() => person.id),
    toId: uuid('to_id')
      .notNull()
      .references(() => person.id),
    at: timestamp({ withTimezone: true }).notNull(),
    /** When whoever did it called it back. */
    calledBackAt: timestamp('called_back_at', { withTimezone: true }),
  },
  (t) => [
    index('approval_handing_document').on(t.documentId),
    check('approval_handing_how', sql`${t.how} in ('on', 'first', 'as well', 'skip')`),
  ],
)

/** Reasons that an organisation has prepared: whoever decides picks one and edits it. */
export const preparedReason = pgTable(
  'prepared_reason',
  {
    id: uuid().primaryKey(),
    text: text().notNull(),
    use: text().$type<ReasonUse>().notNull(),
    retired: boolean().notNull().default(false),
  },
  (t) => [
    uniqueIndex('prepared_reason_text').on(sql`lower(${t.text})`),
    check('prepared_reason_use', sql`${t.use} in ('all', 'approving', 'sending back', 'rejecting', 'asking')`),
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
    /** It was made by answering a mail. */
    byMail: boolean('by_mail').notNull().default(false),
    comment: text().notNull().default(''),
    at: timestamp({ withTimezone: true }).notNull(),
    /** The version of the policy that it followed. */
    policyId: uuid('policy_id').references(() => approvalPolicy.id),
    /** The event after which nobody else may have acted for it to be taken back. */
    eventSeq: integer('event_seq').notNull(),
    takenBackAt: timestamp('taken_back_at', { withTimezone: true }),
    /** What whoever approved changed of the document while approving: as it was before, to be restored. */
    changedFrom: jsonb('changed_from'),
  },
  (t) => [
    index('approval_decision_document').on(t.documentId),
    check('approval_decision_outcome', sql`${t.outcome} in ('approved', 'sent back', 'rejected')`),
  ],
)
