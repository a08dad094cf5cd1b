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
  primaryKey,
  text,
  timestamp,
  unique,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import type { LimitName, MailWay, Theme } from '#core/people/person'
import type { Right } from '#core/people/rights'
import type { Told } from '#core/told/told'

export const shipTo = pgTable(
  'ship_to',
  {
    id: uuid().primaryKey().defaultRandom(),
    name: text().notNull(),
    street: text().notNull(),
    postcode: text().notNull(),
    town: text().notNull(),
    country: text().notNull(),
    /** An address for one delivery: it is offered to nobody else. */
    isOnce: boolean('is_once').notNull().default(false),
    /** It is offered no more; what names it keeps it. */
    retired: boolean().notNull().default(false),
  },
  (t) => [
    uniqueIndex('ship_to_name')
      .on(t.name)
      .where(sql`not ${t.isOnce}`),
  ],
)

export const department = pgTable(
  'department',
  {
    id: uuid().primaryKey().defaultRandom(),
    name: text().notNull().unique(),
    costCentre: text('cost_centre').notNull().unique(),
    parentId: uuid('parent_id').references((): AnyPgColumn => department.id),
    /** Share of tax that it can reclaim, in percent. */
    reclaimable: numeric({ precision: 5, scale: 2 }).notNull().default('0'),
    usualShipToId: uuid('usual_ship_to_id').references(() => shipTo.id),
    retired: boolean().notNull().default(false),
  },
  (t) => [check('department_reclaimable', sql`${t.reclaimable} between 0 and 100`)],
)

export const person = pgTable(
  'person',
  {
    id: uuid().primaryKey().defaultRandom(),
    name: text().notNull(),
    email: text().notNull(),
    jobTitle: text('job_title').notNull().default(''),
    passwordHash: text('password_hash'),
    departmentId: uuid('department_id')
      .notNull()
      .references(() => department.id),
    managerId: uuid('manager_id').references((): AnyPgColumn => person.id),
    /** Where what they need goes, where it is not the usual place of their department. */
    usualShipToId: uuid('usual_ship_to_id').references(() => shipTo.id),
    /** Limits in the base currency; null is none. */
    ownLimit: numeric('own_limit', { precision: 20, scale: 4 }),
    decidingLimit: numeric('deciding_limit', { precision: 20, scale: 4 }),
    orderingLimit: numeric('ordering_limit', { precision: 20, scale: 4 }),
    leftOn: date('left_on'),
    locale: text().notNull().default('en-GB'),
    theme: text().$type<Theme>().notNull().default('system'),
    /** How mails come: of what waits for them, and of what became of theirs. */
    mailsWaiting: text('mails_waiting').$type<MailWay>().notNull().default('at once'),
    mailsNews: text('mails_news').$type<MailWay>().notNull().default('at once'),
    /** When the last daily letter was made. */
    letterAt: timestamp('letter_at', { withTimezone: true }),
    /** What a visitor of the demo can try as this person; null outside the demo. */
    demoNote: text('demo_note'),
    demoRank: numeric('demo_rank', { precision: 4, scale: 0 }),
  },
  (t) => [
    uniqueIndex('person_email').on(sql`lower(${t.email})`),
    index('person_manager').on(t.managerId),
    check('person_theme', sql`${t.theme} in ('system', 'light', 'dark')`),
    check(
      'person_mails',
      sql`${t.mailsWaiting} in ('at once', 'daily', 'never') and ${t.mailsNews} in ('at once', 'daily', 'never')`,
    ),
    check(
      'person_limits',
      sql`coalesce(${t.ownLimit}, 0) >= 0 and coalesce(${t.decidingLimit}, 0) >= 0 and coalesce(${t.orderingLimit},
        0) >= 0`,
    ),
  ],
)

/** The departments that a person may raise for. */
export const departmentMember = pgTable(
  'department_member',
  {
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    departmentId: uuid('department_id')
      .notNull()
      .references(() => department.id),
  },
  (t) => [primaryKey({ columns: [t.personId, t.departmentId] })],
)

export const roleGrant = pgTable(
  'role_grant',
  {
    id: uuid().primaryKey().defaultRandom(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    role: text().notNull(),
    /** A department or a place for which it is held; both null: for the whole organisation. */
    departmentId: uuid('department_id').references(() => department.id),
    placeId: uuid('place_id').references(() => shipTo.id),
    /** Both inside; null is open. */
    fromDay: date('from_day'),
    untilDay: date('until_day'),
  },
  (t) => [
    unique('role_grant_once').on(t.personId, t.role, t.departmentId, t.placeId).nullsNotDistinct(),
    check('role_grant_part', sql`${t.departmentId} is null or ${t.placeId} is null`),
    check(
      'role_grant_whole',
      sql`${t.departmentId} is not null or ${t.placeId} is not null
        or (${t.fromDay} is null and ${t.untilDay} is null)`,
    ),
  ],
)

/** A limit that holds on some days; on others the person's own counts. Of several that hold, the last begun. */
export const limitForDays = pgTable(
  'limit_for_days',
  {
    id: uuid().primaryKey().defaultRandom(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    of: text().$type<LimitName>().notNull(),
    /** In the base currency; null until a second person has confirmed it, and then it is none. */
    amount: numeric({ precision: 20, scale: 4 }),
    fromDay: date('from_day').notNull(),
    untilDay: date('until_day'),
  },
  (t) => [
    unique('limit_for_days_once').on(t.personId, t.of, t.fromDay),
    check('limit_for_days_of', sql`${t.of} in ('own', 'deciding', 'ordering')`),
    check('limit_for_days_amount', sql`${t.amount} >= 0`),
    check('limit_for_days_until', sql`${t.fromDay} <= ${t.untilDay}`),
  ],
)

export const absence = pgTable(
  'absence',
  {
    id: uuid().primaryKey().defaultRandom(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    fromDay: date('from_day').notNull(),
    untilDay: date('until_day').notNull(),
    substituteId: uuid('substitute_id').references(() => person.id),
    note: text().notNull().default(''),
    version: numeric({ precision: 10, scale: 0 }).notNull().default('1'),
  },
  (t) => [
    // Absences of a person lie apart: an exclusion, absence_apart, which only the migration can say.
    index('absence_person').on(t.personId, t.untilDay),
    check('absence_days', sql`${t.fromDay} <= ${t.untilDay}`),
    check('absence_substitute', sql`${t.substituteId} is null or ${t.substituteId} <> ${t.personId}`),
  ],
)

/** Whoever stands in instead during an absence for what comes from a department, or from one below it. */
export const absenceStandIn = pgTable(
  'absence_stand_in',
  {
    absenceId: uuid('absence_id')
      .notNull()
      .references(() => absence.id, { onDelete: 'cascade' }),
    departmentId: uuid('department_id')
      .notNull()
      .references(() => department.id),
    substituteId: uuid('substitute_id')
      .notNull()
      .references(() => person.id),
  },
  (t) => [
    primaryKey({ columns: [t.absenceId, t.departmentId] }),
    index('absence_stand_in_substitute').on(t.substituteId),
  ],
)

export const session = pgTable(
  'session',
  {
    /** The secret that its sealed cookie holds; it never leaves the server in any other way. */
    id: text().primaryKey(),
    /** What it is called where it is shown. */
    handle: uuid().notNull().unique().defaultRandom(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    createdAt: timestamp('created_at', { withTimezone: true }).notNull(),
    seenAt: timestamp('seen_at', { withTimezone: true }).notNull(),
    endedAt: timestamp('ended_at', { withTimezone: true }),
    byDemo: boolean('by_demo').notNull().default(false),
    /** The address it was begun from, and what the browser said of itself. */
    fromAddress: text('from_address').notNull().default(''),
    agent: text().notNull().default(''),
  },
  (t) => [index('session_person').on(t.personId, t.seenAt)],
)

/** What opens one thing once: the first start, or a password to be chosen. Only the hash of the secret is kept. */
export const oneTimeKey = pgTable(
  'one_time_key',
  {
    hash: text().primaryKey(),
    purpose: text().$type<'first start' | 'password'>().notNull(),
    personId: uuid('person_id').references(() => person.id),
    expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
  },
  (t) => [
    index('one_time_key_person').on(t.personId),
    check('one_time_key_whose', sql`(${t.purpose} = 'password') = (${t.personId} is not null)`),
  ],
)

/** The address of somebody's calendar of the days on which they stand in for others: only its hash is kept. */
export const calendarFeed = pgTable('calendar_feed', {
  personId: uuid('person_id')
    .primaryKey()
    .references(() => person.id),
  hash: text().notNull().unique(),
  madeAt: timestamp('made_at', { withTimezone: true }).notNull(),
})

/** A token by which a script acts for somebody: only its hash is kept. */
export const accessToken = pgTable(
  'access_token',
  {
    id: uuid().primaryKey().defaultRandom(),
    hash: text().notNull().unique(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    name: text().notNull(),
    rights: text().array().$type<Right[]>().notNull(),
    createdAt: timestamp('created_at', { withTimezone: true }).notNull(),
    expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
    usedAt: timestamp('used_at', { withTimezone: true }),
    endedAt: timestamp('ended_at', { withTimezone: true }),
  },
  (t) => [index('access_token_person').on(t.personId)],
)

/** A second factor by time-based codes (RFC 6238): its secret is sealed, and each code counts once. */
export const secondFactor = pgTable('second_factor', {
  personId: uuid('person_id')
    .primaryKey()
    .references(() => person.id),
  sealed: text().notNull(),
  confirmedAt: timestamp('confirmed_at', { withTimezone: true }),
  /** The step of the last code that was taken. */
  lastStep: integer('last_step').notNull().default(0),
})

/** Codes that open once where the second factor is lost; only their hashes are kept. */
export const recoveryCode = pgTable(
  'recovery_code',
  {
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    hash: text().notNull(),
  },
  (t) => [primaryKey({ columns: [t.personId, t.hash] })],
)

export const signInAttempt = pgTable('sign_in_attempt', {
  /** The e-mail address tried and from where, or the address that tried. */
  key: text().primaryKey(),
  /** The last try that counted. */
  windowFrom: timestamp('window_from', { withTimezone: true }).notNull(),
  count: numeric({ precision: 6, scale: 0 }).notNull(),
})

/** What a person is told inside the application. */
export const notice = pgTable(
  'notice',
  {
    id: uuid().primaryKey().defaultRandom(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    at: timestamp({ withTimezone: true }).notNull(),
    /** What is told, as a code and facts; it is worded when it is read. */
    told: jsonb().$type<Told>().notNull(),
    aboutKind: text('about_kind').notNull(),
    aboutId: uuid('about_id').notNull(),
    /** The decision that caused it: taking that back takes the notice away. */
    decisionId: uuid('decision_id'),
    readAt: timestamp('read_at', { withTimezone: true }),
  },
  (t) => [
    index('notice_person').on(t.personId, t.at),
    index('notice_unread')
      .on(t.personId)
      .where(sql`${t.readAt} is null`),
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
