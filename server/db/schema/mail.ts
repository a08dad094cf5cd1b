import { index, integer, jsonb, pgTable, text, timestamp, uuid } from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import type { Told } from '#core/told/told'
import { person } from './people'

/** Mail that leaves at least once; its Message-ID stays the same, so that a repeat can be seen as one. */
export const outgoingMail = pgTable(
  'outgoing_mail',
  {
    id: uuid().primaryKey(),
    messageId: text('message_id').notNull().unique(),
    toName: text('to_name').notNull(),
    toAddress: text('to_address').notNull(),
    /** Whose ways of numbers and dates it is worded in, when it leaves. */
    personId: uuid('person_id').references(() => person.id),
    /** What it tells, as a code and facts. */
    told: jsonb().$type<Told>().notNull(),
    /** Where it leads, below the address of the application; null where it leads nowhere. */
    path: text(),
    attachments: jsonb().$type<{ hash: string; name: string }[]>().notNull(),
    aboutKind: text('about_kind').notNull(),
    aboutId: uuid('about_id').notNull(),
    /** The decision that caused it: taking that back cancels the mail. */
    decisionId: uuid('decision_id'),
    createdAt: timestamp('created_at', { withTimezone: true }).notNull(),
    notBefore: timestamp('not_before', { withTimezone: true }).notNull(),
    sentAt: timestamp('sent_at', { withTimezone: true }),
    cancelledAt: timestamp('cancelled_at', { withTimezone: true }),
    attempts: integer().notNull().default(0),
    lastError: text('last_error'),
  },
  (t) => [
    index('outgoing_mail_waiting')
      .on(t.notBefore)
      .where(sql`${t.sentAt} is null and ${t.cancelledAt} is null`),
  ],
)
