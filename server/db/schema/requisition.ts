import {
  boolean,
  check,
  date,
  index,
  integer,
  jsonb,
  numeric,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uuid,
} from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import type { Address } from '#core/base/address'
import type { SplitMethod } from '#core/base/split'
import type { OrderWords } from '#core/order/kept-words'
import type { Draft, LineDiscount, OwnValues } from '#core/requisition/draft'
import { document } from './document'
import { department, person, shipTo } from './people'
import { supplier } from './supplier'
import { category, item } from './catalogue'
import { budgetLine } from './budget'
import { job, requestKind } from './request-form'

export const requisition = pgTable(
  'requisition',
  {
    id: uuid()
      .primaryKey()
      .references(() => document.id, { onDelete: 'cascade' }),
    /** What kind of request it is. */
    kindCode: text('kind_code')
      .notNull()
      .default('goods')
      .references(() => requestKind.code),
    departmentId: uuid('department_id').references(() => department.id),
    raisedById: uuid('raised_by_id')
      .notNull()
      .references(() => person.id),
    shipToId: uuid('ship_to_id').references(() => shipTo.id),
    /** An address for this delivery alone; sending makes a ship-to of it that nobody else is offered. */
    address: jsonb().$type<Address>(),
    shipToDetail: text('ship_to_detail').notNull().default(''),
    attention: text().notNull().default(''),
    telephone: text().notNull().default(''),
    instructions: text().notNull().default(''),
    needBy: date('need_by'),
    why: text().notNull().default(''),
    overBudgetReason: text('over_budget_reason').notNull().default(''),
    justification: text().notNull().default(''),
    noteToSupplier: text('note_to_supplier').notNull().default(''),
    noteInternal: text('note_internal').notNull().default(''),
    jobId: uuid('job_id').references(() => job.id),
    own: jsonb().$type<OwnValues>().notNull().default({}),
    readWarnings: text('read_warnings').array().notNull().default([]),
    accountingDate: date('accounting_date'),
    /** Set by sending: where its reservations stand. */
    fiscalYear: integer('fiscal_year'),
    period: integer(),
    /** Approval amount at the last sending, in the base currency. */
    amount: numeric({ precision: 20, scale: 4 }),
    round: integer().notNull().default(0),
    /** The draft as it was last sent, to tell whether it comes back with no more. */
    sentDraft: jsonb('sent_draft').$type<Draft>(),
    /** As it was sent the time before, to tell what changed. */
    earlierDraft: jsonb('earlier_draft').$type<Draft>(),
    /** The files that it was last sent with, by the ids of their attachments. */
    sentFiles: uuid('sent_files').array().notNull().default([]),
    /** Of a direct order that is written on: what was said of it on its tray. */
    orderWords: jsonb('order_words').$type<OrderWords>(),
    /** When its owner last reminded those it waits for. */
    remindedAt: timestamp('reminded_at', { withTimezone: true }),
  },
  (t) => [
    index('requisition_raised_by').on(t.raisedById),
    index('requisition_department').on(t.departmentId),
    index('requisition_amount').on(t.id, t.amount),
  ],
)

export const requisitionLine = pgTable(
  'requisition_line',
  {
    id: uuid().primaryKey(),
    requisitionId: uuid('requisition_id')
      .notNull()
      .references(() => requisition.id, { onDelete: 'cascade' }),
    position: integer().notNull(),
    itemId: uuid('item_id').references(() => item.id),
    categoryId: uuid('category_id').references(() => category.id),
    description: text().notNull(),
    secondDescription: text('second_description').notNull().default(''),
    quantity: numeric({ precision: 24, scale: 6 }).notNull(),
    unit: text().notNull(),
    unitPrice: numeric('unit_price', { precision: 24, scale: 6 }),
    /** The catalogue's price as it was picked, and a price as it was typed with tax. */
    listPrice: numeric('list_price', { precision: 24, scale: 6 }),
    priceWithTax: numeric('price_with_tax', { precision: 24, scale: 6 }),
    discountOf: text('discount_of').$type<LineDiscount['of']>(),
    discount: numeric({ precision: 24, scale: 6 }),
    priceBase: numeric('price_base', { precision: 20, scale: 6 }).notNull().default('1'),
    currency: text().notNull(),
    /** Units of its currency for one of the base, at the last sending; null while a draft. */
    perBase: numeric('per_base', { precision: 20, scale: 8 }),
    taxCode: text('tax_code').notNull(),
    taxRate: numeric('tax_rate', { precision: 6, scale: 3 }),
    supplierId: uuid('supplier_id').references(() => supplier.id),
    supplierPart: text('supplier_part'),
    /** Null: when the whole is needed. */
    needBy: date('need_by'),
    noteToSupplier: text('note_to_supplier').notNull().default(''),
    noteInternal: text('note_internal').notNull().default(''),
    jobId: uuid('job_id').references(() => job.id),
    own: jsonb().$type<OwnValues>().notNull().default({}),
    splitMethod: text('split_method').$type<SplitMethod>().notNull().default('percent'),
    /** How much of it stands on issued orders, on trays, and cancelled. */
    ordered: numeric({ precision: 24, scale: 6 }).notNull().default('0'),
    onTray: numeric('on_tray', { precision: 24, scale: 6 }).notNull().default('0'),
    cancelled: numeric({ precision: 24, scale: 6 }).notNull().default('0'),
    /** A buyer put what is open of it aside until this day, on which it waits again, and why. */
    asideUntil: date('aside_until'),
    asideReason: text('aside_reason').notNull().default(''),
  },
  (t) => [
    index('requisition_line_of').on(t.requisitionId, t.position),
    index('requisition_line_item').on(t.itemId),
    index('requisition_line_open')
      .on(t.requisitionId, t.position)
      .where(sql`${t.quantity} - ${t.ordered} - ${t.cancelled} - ${t.onTray} > 0`),
    index('requisition_line_unordered')
      .on(t.supplierId)
      .where(sql`${t.quantity} - ${t.ordered} - ${t.cancelled} > 0`),
    check(
      'requisition_line_discount',
      sql`(${t.discountOf} is null) = (${t.discount} is null) and ${t.discountOf} in ('percent', 'amount')`,
    ),
    check('requisition_line_price_base', sql`${t.priceBase} > 0`),
    check('requisition_line_quantities', sql`${t.ordered} >= 0 and ${t.onTray} >= 0 and ${t.cancelled} >= 0`),
  ],
)

/** By how many sent lines each department asked for each item: kept beside the lines for speed. */
export const itemAsked = pgTable(
  'item_asked',
  {
    itemId: uuid('item_id')
      .notNull()
      .references(() => item.id),
    departmentId: uuid('department_id')
      .notNull()
      .references(() => department.id),
    lines: integer().notNull(),
  },
  (t) => [primaryKey({ columns: [t.itemId, t.departmentId] })],
)

export const requisitionCoding = pgTable(
  'requisition_coding',
  {
    lineId: uuid('line_id')
      .notNull()
      .references(() => requisitionLine.id, { onDelete: 'cascade' }),
    position: integer().notNull(),
    budgetLineId: uuid('budget_line_id')
      .notNull()
      .references(() => budgetLine.id),
    value: numeric({ precision: 24, scale: 6 }),
    /** What its department could reclaim when it was sent; null while a draft. */
    reclaimable: numeric({ precision: 5, scale: 2 }),
    /** The period of its budget line's year that a year end carried it to; null: it stands in its request's. */
    carriedTo: integer('carried_to'),
    /** A year end released what was reserved for it: nothing is, until its request is sent again. */
    released: boolean().notNull().default(false),
  },
  (t) => [primaryKey({ columns: [t.lineId, t.position] }), index('requisition_coding_budget').on(t.budgetLineId)],
)
