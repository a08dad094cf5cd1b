import { bigserial, index, jsonb, pgTable, text, timestamp, uuid } from 'drizzle-orm/pg-core'
import { person } from './people'

/**
 * Everything that changed: who, for whom, when, what before and after. Append-only: the application's
 * role may not update or delete. `seq` and the plain columns are the canonical form over which a hash
 * chain can be laid, in a table of its own, after the commit.
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
  (t) => [index('event_subject').on(t.subjectId, t.seq)],
)
