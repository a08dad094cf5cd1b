import { index, pgTable, text, timestamp, uuid } from 'drizzle-orm/pg-core'
import { person } from './people'

/** The last runs of what is done by itself. */
export const scheduledRun = pgTable(
  'scheduled_run',
  {
    id: uuid().primaryKey(),
    task: text().notNull(),
    beganAt: timestamp('began_at', { withTimezone: true }).notNull(),
    endedAt: timestamp('ended_at', { withTimezone: true }).notNull(),
    /** Null where it was done. */
    error: text(),
    /** Whoever asked for it; null where it was time for it. */
    byId: uuid('by_id').references(() => person.id),
  },
  (t) => [index('scheduled_run_task').on(t.task, t.beganAt)],
)

/** What is not done by itself until somebody lets it go on. */
export const scheduledPause = pgTable('scheduled_pause', {
  task: text().primaryKey(),
  byId: uuid('by_id')
    .notNull()
    .references(() => person.id),
  at: timestamp({ withTimezone: true }).notNull(),
})
