import {
  boolean,
  check,
  date,
  foreignKey,
  index,
  integer,
  jsonb,
  numeric,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uniqueIndex,
  uuid,
  type AnyPgColumn,
} from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import type { AnswerOutcome, AnswerWay } from '#core/order/answer'
import type { LineWish, Rest } from '#core/order/change'
import type { OrderAdjustment } from '#core/order/adjustment'
import type { DeliveryTerm } from '#core/order/conditions'
import type { TalkWay } from '#core/order/talk'
import type { PaymentTerms } from '#core/base/day'
import { agreement } from './agreement'
import { document } from './document'
import { orderingRun } from './ordering'
import { person, shipTo } from './people'
import { supplier } from './supplier'
import { item } from './catalogue'
import { requisitionLine } from './requisition'
import { file } from './file'

/** An order's own part; its buyer is the owner of its document, its title the supplier's name. */
export const purchaseOrder = pgTable(
  'purchase_order',
  {
    id: uuid()
      .primaryKey()
      .references(() => document.id, { onDelete: 'cascade' }),
    supplierId: uuid('supplier_id')
      .notNull()
      .references(() => supplier.id),
    shipToId: uuid('ship_to_id')
      .notNull()
      .references(() => shipTo.id),
    currency: text().notNull(),
    termsKind: text('terms_kind').$type<PaymentTerms['kind']>().notNull(),
    termsDays: integer('terms_days').notNull(),
    /** Its buyer said how it is paid: what it draws on does not change that. */
    termsSaid: boolean('terms_said').notNull().default(false),
    deliveryTerm: text('delivery_term').$type<DeliveryTerm>(),
    deliveryPlace: text('delivery_place').notNull().default(''),
    expiresOn: date('expires_on'),
    /** Of a blanket order: the last day of which its buyer was warned. */
    endToldFor: date('end_told_for'),
    /** The number under which it was placed elsewhere, as it was given and, while it stands, as it is compared. */
    placedAs: text('placed_as'),
    placedKey: text('placed_key'),
    /** It goes to its supplier. */
    isSent: boolean('is_sent').notNull().default(true),
    /** It is called off a part at a time, until its last day. */
    isBlanket: boolean('is_blanket').notNull().default(false),
    /** Of a call-off: the blanket order of which it is a part, and which holds its money. */
    blanketId: uuid('blanket_id').references((): AnyPgColumn => purchaseOrder.id),
    note: text().notNull().default(''),
    /** Sent for a decision, it is issued as soon as it is approved, without another press. */
    issuesItself: boolean('issues_itself').notNull().default(false),
    revision: integer().notNull().default(0),
    /** Units of its currency for one of the base, when it was issued. */
    perBase: numeric('per_base', { precision: 20, scale: 8 }),
    /** What is taken off the whole of it, or put on it, besides freight. */
    adjustments: jsonb().$type<readonly OrderAdjustment[]>().notNull().default([]),
    /** Lines, freight and adjustments. */
    net: numeric({ precision: 20, scale: 4 }),
    freight: numeric({ precision: 20, scale: 4 }).notNull().default('0'),
    tax: numeric({ precision: 20, scale: 4 }),
    /** When its supplier was asked last for an answer. */
    remindedAt: timestamp('reminded_at', { withTimezone: true }),
    /** On which it draws, and whether its buyer said so: what they said, lines do not change. */
    agreementId: uuid('agreement_id').references(() => agreement.id),
    agreementSaid: boolean('agreement_said').notNull().default(false),
    /** The run that made it by itself, and what its rule was called then; null: somebody did. */
    runId: uuid('run_id').references(() => orderingRun.id),
    rule: text(),
  },
  (t) => [
    index('purchase_order_run')
      .on(t.runId)
      .where(sql`${t.runId} is not null`),
    index('purchase_order_supplier').on(t.supplierId),
    uniqueIndex('purchase_order_placed')
      .on(t.placedKey, t.supplierId)
      .where(sql`${t.placedKey} is not null`),
    check('purchase_order_placed_said', sql`${t.placedKey} is null or ${t.placedAs} is not null`),
    check('purchase_order_unsent', sql`${t.isSent} or ${t.placedAs} is not null`),
    index('purchase_order_blanket')
      .on(t.blanketId)
      .where(sql`${t.blanketId} is not null`),
    check(
      'purchase_order_blanket_ends',
      sql`not ${t.isBlanket} or (${t.expiresOn} is not null and ${t.blanketId} is null)`,
    ),
    index('purchase_order_agreement')
      .on(t.agreementId)
      .where(sql`${t.agreementId} is not null`),
  ],
)

/** What lies on a tray: parts of requisition lines, while the order is a draft. */
export const trayPart = pgTable(
  'tray_part',
  {
    orderId: uuid('order_id')
      .notNull()
      .references(() => purchaseOrder.id, { onDelete: 'cascade' }),
    requisitionLineId: uuid('requisition_line_id')
      .notNull()
      .references(() => requisitionLine.id),
    quantity: numeric({ precision: 24, scale: 6 }).notNull(),
    /** The price that the buyer agreed for a line without one in the catalogue; of an offer that as it was taken. */
    unitPrice: numeric('unit_price', { precision: 24, scale: 6 }),
    /** The item as which it is ordered, where another supplier's offer of the same was taken. */
    itemId: uuid('item_id').references(() => item.id),
    addedAt: timestamp('added_at', { withTimezone: true }).notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.orderId, t.requisitionLineId] }),
    index('tray_part_line').on(t.requisitionLineId),
    check('tray_part_quantity', sql`${t.quantity} > 0`),
  ],
)

export const orderLine = pgTable(
  'order_line',
  {
    id: uuid().primaryKey(),
    orderId: uuid('order_id')
      .notNull()
      .references(() => purchaseOrder.id),
    position: integer().notNull(),
    /** Of a call-off: the line of its blanket order of which this is a part. */
    blanketLineId: uuid('blanket_line_id').references((): AnyPgColumn => orderLine.id),
    itemId: uuid('item_id').references(() => item.id),
    description: text().notNull(),
    secondDescription: text('second_description').notNull().default(''),
    note: text().notNull().default(''),
    discountPercent: numeric('discount_percent', { precision: 24, scale: 6 }),
    discountAmount: numeric('discount_amount', { precision: 30, scale: 20 }),
    supplierPart: text('supplier_part'),
    quantity: numeric({ precision: 24, scale: 6 }).notNull(),
    unit: text().notNull(),
    unitPrice: numeric('unit_price', { precision: 24, scale: 6 }).notNull(),
    priceBase: numeric('price_base', { precision: 20, scale: 6 }).notNull(),
    taxCode: text('tax_code').notNull(),
    taxRate: numeric('tax_rate', { precision: 6, scale: 3 }).notNull(),
    needBy: date('need_by').notNull(),
    /** By when the supplier promised it. */
    promisedOn: date('promised_on'),
    net: numeric({ precision: 20, scale: 4 }).notNull(),
    /** What it bears of the order's freight and adjustments. */
    borne: numeric({ precision: 20, scale: 4 }).notNull().default('0'),
  },
  (t) => [
    unique('order_line_position').on(t.orderId, t.position),
    index('order_line_item').on(t.itemId),
    index('order_line_words').using('gin', sql`${t.description} gin_trgm_ops`),
    index('order_line_blanket')
      .on(t.blanketLineId)
      .where(sql`${t.blanketLineId} is not null`),
  ],
)

/** How much of an order line belongs to which requisition line; money and goods flow back along it. */
export const orderLineSource = pgTable(
  'order_line_source',
  {
    orderLineId: uuid('order_line_id')
      .notNull()
      .references(() => orderLine.id),
    requisitionLineId: uuid('requisition_line_id')
      .notNull()
      .references(() => requisitionLine.id),
    quantity: numeric({ precision: 24, scale: 6 }).notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.orderLineId, t.requisitionLineId] }),
    index('order_line_source_line').on(t.requisitionLineId),
  ],
)

/** Every sent state of an order, kept as it was sent. */
export const orderRevision = pgTable(
  'order_revision',
  {
    orderId: uuid('order_id')
      .notNull()
      .references(() => purchaseOrder.id),
    revision: integer().notNull(),
    issuedById: uuid('issued_by_id')
      .notNull()
      .references(() => person.id),
    issuedAt: timestamp('issued_at', { withTimezone: true }).notNull(),
    /** The order as it stood, from which its PDF is made. */
    snapshot: jsonb().notNull(),
    pdfHash: text('pdf_hash').references(() => file.hash),
  },
  (t) => [primaryKey({ columns: [t.orderId, t.revision] })],
)

/**
 * A sent state on its way to the supplier over one channel: what goes where, and how far it came. Its reference (a
 * Message-ID, say) stays the same, so that a repeat after a crash can be seen as one.
 */
export const orderSending = pgTable(
  'order_sending',
  {
    id: uuid().primaryKey(),
    orderId: uuid('order_id').notNull(),
    revision: integer().notNull(),
    channel: text().notNull(),
    address: text().notNull(),
    reference: text().notNull().unique(),
    outcome: text().notNull().default('waiting'),
    laidAt: timestamp('laid_at', { withTimezone: true }).notNull(),
    sentAt: timestamp('sent_at', { withTimezone: true }),
    tries: integer().notNull().default(0),
    lastError: text('last_error'),
  },
  (t) => [
    foreignKey({ columns: [t.orderId, t.revision], foreignColumns: [orderRevision.orderId, orderRevision.revision] }),
    index('order_sending_of').on(t.orderId, t.revision),
    index('order_sending_waiting')
      .on(t.laidAt)
      .where(sql`${t.outcome} = 'waiting'`),
    check('order_sending_outcome', sql`${t.outcome} in ('waiting', 'sent', 'given up')`),
    check('order_sending_sent', sql`(${t.outcome} = 'sent') = (${t.sentAt} is not null)`),
  ],
)

/**
 * A change of an issued order, or its cancellation, with what its lines are to be; its buyer is the owner of its
 * document. One at a time is under way; in force it is the revision that was sent.
 */
export const orderChange = pgTable(
  'order_change',
  {
    id: uuid()
      .primaryKey()
      .references(() => document.id, { onDelete: 'cascade' }),
    orderId: uuid('order_id')
      .notNull()
      .references(() => purchaseOrder.id),
    lines: jsonb().$type<readonly LineWish[]>().notNull(),
    /** Where it is to go; null: where it goes. */
    shipToId: uuid('ship_to_id').references(() => shipTo.id),
    /** Its last day; null: as it is. */
    expiresOn: date('expires_on'),
    /** What is taken off the whole, or put on it; null: as it is. */
    adjustments: jsonb().$type<readonly OrderAdjustment[]>(),
    /** What becomes of what is not ordered any more. */
    rest: text().$type<Rest>().notNull(),
    /** Why, for colleagues. */
    reason: text().notNull(),
    /** What the supplier is told with it. */
    note: text().notNull().default(''),
    isUnderWay: boolean('is_under_way').notNull(),
    /** The revision that it became. */
    revision: integer(),
  },
  (t) => [
    uniqueIndex('order_change_under_way')
      .on(t.orderId)
      .where(sql`${t.isUnderWay}`),
    index('order_change_order').on(t.orderId),
    check('order_change_rest', sql`${t.rest} in ('returns', 'ends')`),
    check('order_change_over', sql`not ${t.isUnderWay} or ${t.revision} is null`),
  ],
)

/**
 * What a supplier answered to a sent state of an order, every line as it says it will be. One at a time waits for the
 * buyer.
 */
export const orderAnswer = pgTable(
  'order_answer',
  {
    id: uuid().primaryKey(),
    orderId: uuid('order_id').notNull(),
    revision: integer().notNull(),
    way: text().$type<AnswerWay>().notNull(),
    /** Who answered, as they said. */
    byName: text('by_name').notNull(),
    /** Whoever typed it in. */
    enteredById: uuid('entered_by_id').references(() => person.id),
    lines: jsonb().$type<readonly LineWish[]>().notNull(),
    note: text().notNull().default(''),
    givenAt: timestamp('given_at', { withTimezone: true }).notNull(),
    outcome: text().$type<AnswerOutcome>().notNull(),
    endedAt: timestamp('ended_at', { withTimezone: true }),
    /** What its buyer said to it. */
    said: text().notNull().default(''),
  },
  (t) => [
    foreignKey({ columns: [t.orderId, t.revision], foreignColumns: [orderRevision.orderId, orderRevision.revision] }),
    uniqueIndex('order_answer_waits')
      .on(t.orderId)
      .where(sql`${t.outcome} = 'waits'`),
    index('order_answer_order').on(t.orderId, t.givenAt),
    check('order_answer_way', sql`${t.way} in ('link', 'buyer', 'response')`),
    check('order_answer_outcome', sql`${t.outcome} in ('waits', 'holds', 'declined', 'replaced')`),
    check('order_answer_entered', sql`(${t.way} = 'link') = (${t.enteredById} is null)`),
    check('order_answer_ended', sql`(${t.outcome} = 'waits') = (${t.endedAt} is null)`),
  ],
)

/** What was said with a supplier about an issued order, as whoever spoke noted it. */
export const orderTalk = pgTable(
  'order_talk',
  {
    id: uuid().primaryKey().defaultRandom(),
    orderId: uuid('order_id')
      .notNull()
      .references(() => purchaseOrder.id),
    byId: uuid('by_id')
      .notNull()
      .references(() => person.id),
    at: timestamp({ withTimezone: true }).notNull(),
    way: text().$type<TalkWay>().notNull(),
    talkedWith: text('talked_with').notNull(),
    text: text().notNull(),
  },
  (t) => [
    index('order_talk_order').on(t.orderId, t.at),
    check('order_talk_way', sql`${t.way} in ('telephone', 'mail', 'in person')`),
  ],
)
