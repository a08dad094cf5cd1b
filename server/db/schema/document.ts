import { boolean, check, index, pgTable, text, timestamp, integer, uniqueIndex, uuid } from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import type { AttachedAs } from '#core/requisition/rules'
import { file } from './file'
import { person } from './people'

/**
 * What every kind of document has: it shares its id with the kind's own row, and alone holds number, title, owner and
 * state. Whoever changes a document locks its row here first.
 */
export const document = pgTable(
  'document',
  {
    id: uuid().primaryKey(),
    kind: text().notNull(),
    number: text(),
    title: text().notNull().default(''),
    ownerId: uuid('owner_id')
      .notNull()
      .references(() => person.id),
    /** Whoever else owned it since it last left its author: they are no more free to judge it than its owner. */
    ownedBy: uuid('owned_by').array().notNull().default([]),
    state: text().notNull().default('draft'),
    version: integer().notNull().default(1),
    createdAt: timestamp('created_at', { withTimezone: true }).notNull(),
    changedAt: timestamp('changed_at', { withTimezone: true }).notNull(),
    /** When it last left its author: sent, or issued. */
    sentAt: timestamp('sent_at', { withTimezone: true }),
    /** Since when it stands in this state. */
    stateSince: timestamp('state_since', { withTimezone: true }).notNull(),
    /** Before this moment nobody sees it but its owner; null where nothing is sealed. */
    sealedUntil: timestamp('sealed_until', { withTimezone: true }),
  },
  (t) => [
    uniqueIndex('document_number').on(t.number),
    index('document_owner').on(t.ownerId, t.changedAt.desc().nullsFirst(), t.id.desc().nullsFirst()),
    index('document_title_words').using('gin', sql`${t.title} gin_trgm_ops`),
    index('document_number_parts').using('gin', sql`${t.number} gin_trgm_ops`),
    index('document_sent').on(t.kind, t.sentAt.desc().nullsFirst(), t.id.desc().nullsFirst()),
    index('document_open')
      .on(t.state)
      .where(sql`${t.state} in ('approved', 'part ordered', 'in approval')`),
    // What somebody owns is counted and added up from the index alone.
    index('document_owned').on(t.ownerId, t.kind, t.state, t.id),
    index('document_with_owner')
      .on(t.ownerId)
      .where(sql`${t.state} in ('sent back', 'in approval')`),
    index('document_drafts')
      .on(t.kind, t.ownerId)
      .where(sql`${t.state} = 'draft'`),
    index('document_to_order')
      .on(t.sentAt, t.number)
      .where(sql`${t.kind} = 'requisition' and ${t.state} in ('approved', 'part ordered')`),
    check(
      'document_requisition',
      sql`${t.kind} <> 'requisition' or (${t.state} in ('draft', 'in approval', 'approved', 'part ordered', 'ordered',
        'closed', 'sent back', 'rejected', 'withdrawn', 'cancelled') and (${t.state} = 'draft'
        or ${t.number} is not null))`,
    ),
    check(
      'document_order',
      sql`${t.kind} <> 'order' or (${t.state} in ('draft', 'in approval', 'approved', 'issued', 'acknowledged',
        'part received', 'received', 'closed', 'cancelled')
        and (${t.state} in ('draft', 'in approval', 'approved', 'cancelled') or ${t.number} is not null))`,
    ),
    check(
      'document_order_change',
      sql`${t.kind} <> 'order change' or (${t.number} is null
        and ${t.state} in ('draft', 'in approval', 'approved', 'in force', 'cancelled'))`,
    ),
  ],
)

export const attachment = pgTable(
  'attachment',
  {
    id: uuid().primaryKey(),
    documentId: uuid('document_id')
      .notNull()
      .references(() => document.id, { onDelete: 'cascade' }),
    fileHash: text('file_hash')
      .notNull()
      .references(() => file.hash),
    name: text().notNull(),
    kind: text().$type<AttachedAs>().notNull().default('unsaid'),
    forSupplier: boolean('for_supplier').notNull().default(false),
    addedById: uuid('added_by_id')
      .notNull()
      .references(() => person.id),
    addedAt: timestamp('added_at', { withTimezone: true }).notNull(),
  },
  (t) => [index('attachment_document').on(t.documentId)],
)

export const REMARK_KINDS = ['question', 'answer', 'reason', 'change wished', 'cancellation wished'] as const
export type RemarkKind = (typeof REMARK_KINDS)[number]

/** What was said about a document: questions, answers, reasons, and its owner's wishes for a change. */
export const remark = pgTable(
  'remark',
  {
    id: uuid().primaryKey().defaultRandom(),
    documentId: uuid('document_id')
      .notNull()
      .references(() => document.id, { onDelete: 'cascade' }),
    personId: uuid('person_id')
      .notNull()
      .references(() => person.id),
    at: timestamp({ withTimezone: true }).notNull(),
    kind: text().$type<RemarkKind>().notNull(),
    text: text().notNull(),
    /** Of a question: whom it is for; null is the owner. */
    toId: uuid('to_id').references(() => person.id),
    /** Of a buyer's question: the requisition line that it is about, which waits for the answer. */
    lineId: uuid('line_id'),
    answeredAt: timestamp('answered_at', { withTimezone: true }),
    /** The decision it was said with, so that taking that back takes this back too. */
    decisionId: uuid('decision_id'),
  },
  (t) => [
    index('remark_document').on(t.documentId, t.at),
    index('remark_to')
      .on(t.toId)
      .where(sql`${t.toId} is not null`),
    index('remark_line')
      .on(t.lineId, t.at)
      .where(sql`${t.lineId} is not null`),
    check('remark_kind', sql`${t.kind} in ('question', 'answer', 'reason', 'change wished', 'cancellation wished')`),
  ],
)
