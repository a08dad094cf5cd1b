import { index, jsonb, pgTable, text, timestamp, uuid } from 'drizzle-orm/pg-core'
import type { ListName, Values } from '#core/lists/list'
import { person } from './people'

/** A change of somebody's limits or of one's own roles, until a second person confirms it. */
export const heldChange = pgTable(
  'held_change',
  {
    id: uuid().primaryKey().defaultRandom(),
    list: text().$type<ListName>().notNull(),
    entryId: text('entry_id').notNull(),
    /** The columns that would change, alone. */
    before: jsonb().$type<Values>().notNull(),
    after: jsonb().$type<Values>().notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => person.id),
    at: timestamp({ withTimezone: true }).notNull(),
  },
  (t) => [index('held_change_entry').on(t.list, t.entryId)],
)
