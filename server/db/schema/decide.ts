import { index, integer, pgTable, text, timestamp, unique, uuid } from 'drizzle-orm/pg-core'
import { document } from './document'
import { person } from './people'

/** An address by which one person may answer one request for their decision, once; only its hash is kept. */
export const answerKey = pgTable(
  'answer_key',
  {
    hash: text().primaryKey(),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    documentId: uuid('document_id')
      .notNull()
      .references(() => document.id),
    /** The sending that was mailed: what is sent again is answered by another address. */
    round: integer().notNull(),
    expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
    /** When a decision was made by it. */
    usedAt: timestamp('used_at', { withTimezone: true }),
  },
  (t) => [index('answer_key_document').on(t.documentId)],
)

/** What came to such an address, and what became of it. */
export const mailAnswer = pgTable(
  'mail_answer',
  {
    id: uuid().primaryKey().defaultRandom(),
    keyHash: text('key_hash')
      .notNull()
      .references(() => answerKey.hash),
    messageId: text('message_id').notNull(),
    at: timestamp({ withTimezone: true }).notNull(),
    outcome: text().notNull(),
    decisionId: uuid('decision_id'),
  },
  // What a post office brings twice is taken once.
  (t) => [unique('mail_answer_message').on(t.keyHash, t.messageId)],
)
