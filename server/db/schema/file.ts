import { customType, integer, pgTable, text, timestamp } from 'drizzle-orm/pg-core'

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' })

/** Attachments and PDFs, once each, by the SHA-256 of their content. */
export const file = pgTable('file', {
  hash: text().primaryKey(),
  mime: text().notNull(),
  size: integer().notNull(),
  bytes: bytea().notNull(),
  keptAt: timestamp('kept_at', { withTimezone: true }).notNull(),
})
