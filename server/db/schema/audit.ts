import { bigint, bigserial, index, jsonb, pgTable, text, timestamp, uuid } from 'drizzle-orm/pg-core'
import type { IntegrityFound } from '#core/audit/integrity'
import { person } from './people'

/**
 * Everything that changed: who, for whom, when, what before and after. Append-only: the application's
 * role may not update or delete. `seq` and the plain columns are the canonical form over which the chain is laid
 * (`event_link`), after the commit.
 */
export const event = pgTable(
  'event',
  {
    seq: bigserial({ mode: 'number' }).primaryKey(),
    at: timestamp({ withTimezone: true }).notNull(),
    actorId: uuid('actor_id').references(() => person.id),
    forId: uuid('for_id').references(() => person.id),
    type: text().notNull(),
    subjectKind: text('subject_kind').notNull(),
    subjectId: uuid('subject_id').notNull(),
    before: jsonb(),
    after: jsonb().$type<Record<string, unknown>>(),
  },
  (t) => [index('event_subject').on(t.subjectId, t.seq), index('event_actor').on(t.actorId, t.seq)],
)

/**
 * The chain over the events: each link's hash is of the hash before it and of its event. Append-only, and laid once no
 * transaction that is still open can bring an earlier event; so it counts without gaps, which `seq` does not.
 */
export const eventLink = pgTable('event_link', {
  number: bigint({ mode: 'number' }).primaryKey(),
  seq: bigint({ mode: 'number' })
    .notNull()
    .unique()
    .references(() => event.seq),
  /** SHA-256, in hexadecimal figures. */
  hash: text().notNull(),
  laidAt: timestamp('laid_at', { withTimezone: true }).notNull().defaultNow(),
})

/** A look at whether everything that is kept twice agrees, and what was found. */
export const integrityRun = pgTable(
  'integrity_run',
  {
    id: uuid().primaryKey().defaultRandom(),
    at: timestamp({ withTimezone: true }).notNull(),
    /** Whoever asked for it; null where it was time for it. */
    byId: uuid('by_id').references(() => person.id),
    found: jsonb('outcome').$type<IntegrityFound>().notNull(),
  },
  (t) => [index('integrity_run_at').on(t.at)],
)
