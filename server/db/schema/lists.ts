import { bigint, index, integer, jsonb, pgTable, primaryKey, text, timestamp, uuid } from 'drizzle-orm/pg-core'
import type { ListName, Values } from '#core/lists/list'
import type { LaidState } from '#core/lists/laid'
import type { ListReason } from '#core/lists/reason'
import { file } from './file'
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

/** A file too long for one answer, laid aside for a list until it is taken or left. */
export const laidFile = pgTable(
  'laid_file',
  {
    id: uuid().primaryKey(),
    list: text().$type<ListName>().notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => person.id),
    at: timestamp({ withTimezone: true }).notNull(),
    name: text().notNull(),
    /** Its bytes, as long as they are needed. */
    fileHash: text('file_hash').references(() => file.hash),
    state: text().$type<LaidState>().notNull().default('reading'),
    head: jsonb().$type<readonly string[]>().notNull().default([]),
    columns: jsonb().$type<readonly (string | null)[]>(),
    /** How many rows were read, and of how many it is known what they would do. */
    rows: integer().notNull().default(0),
    looked: integer().notNull().default(0),
    adds: integer().notNull().default(0),
    changes: integer().notNull().default(0),
    nothing: integer().notNull().default(0),
    refused: integer().notNull().default(0),
    /** Entries in use that it does not name; they lie behind its rows, to be retired with them. */
    gone: integer().notNull().default(0),
    /** The first rows that cannot be taken, with why. */
    reasons: jsonb()
      .$type<readonly { readonly at: number; readonly reasons: readonly ListReason[] }[]>()
      .notNull()
      .default([]),
    notes: jsonb().$type<readonly string[]>().notNull().default([]),
    /** The version of the list that it was looked at against. */
    version: integer(),
    trouble: text().notNull().default(''),
    /** The event by which it was taken. */
    seq: bigint({ mode: 'number' }),
  },
  (t) => [index('laid_file_of').on(t.list, t.byId, t.at), index('laid_file_seq').on(t.seq)],
)

/** A row of it, with what it would do, and did: the before and after of the event that took it. */
export const laidRow = pgTable(
  'laid_row',
  {
    fileId: uuid('file_id')
      .notNull()
      .references(() => laidFile.id, { onDelete: 'cascade' }),
    /** Where it stands in the file, from 1. */
    at: integer().notNull(),
    cells: jsonb().$type<readonly string[]>().notNull(),
    key: text(),
    does: text().$type<'adds' | 'changes' | 'nothing' | 'refused' | 'gone'>(),
    entryId: uuid('entry_id'),
    before: jsonb().$type<Values>(),
    after: jsonb().$type<Values>(),
  },
  (t) => [primaryKey({ columns: [t.fileId, t.at] }), index('laid_row_key').on(t.fileId, t.key)],
)
