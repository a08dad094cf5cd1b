import { integer, jsonb, pgTable, primaryKey, text, timestamp } from 'drizzle-orm/pg-core'

/** What was answered to a request that carried an Idempotency-Key. */
export const idempotency = pgTable(
  'idempotency',
  {
    personId: text('person_id').notNull(),
    key: text().notNull(),
    route: text().notNull(),
    bodyHash: text('body_hash').notNull(),
    status: integer().notNull(),
    reply: jsonb(),
    at: timestamp({ withTimezone: true }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.personId, t.key] })],
)
