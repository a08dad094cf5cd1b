import {
  bigserial,
  boolean,
  check,
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
  uuid,
} from 'drizzle-orm/pg-core'
import { sql } from 'drizzle-orm'
import type { BudgetControl, BudgetSpan } from '#core/budget/available'
import type { BudgetStage } from '#core/budget/ledger'
import type { TransferState } from '#core/budget/transfer'
import type { DecimalText } from '#core/base/decimal'
import type { YearEndChoice } from '#core/budget/year-end'
import { department, person } from './people'
import { supplier } from './supplier'

export const account = pgTable('account', {
  code: text().primaryKey(),
  name: text().notNull(),
  /** It is offered no more; what names it keeps it. */
  retired: boolean().notNull().default(false),
})

export const budgetLine = pgTable(
  'budget_line',
  {
    id: uuid().primaryKey().defaultRandom(),
    departmentId: uuid('department_id')
      .notNull()
      .references(() => department.id),
    accountCode: text('account_code')
      .notNull()
      .references(() => account.code),
    projectCode: text('project_code'),
    fiscalYear: integer('fiscal_year').notNull(),
    name: text().notNull(),
    control: text().$type<BudgetControl>().notNull(),
    mayFallBelow: numeric('may_fall_below', { precision: 20, scale: 4 }).notNull().default('0'),
    span: text().$type<BudgetSpan>().notNull().default('year'),
    holderId: uuid('holder_id').references(() => person.id),
    retired: boolean().notNull().default(false),
    /** The shares of what it was given, in percent, at which whoever holds it is told. */
    tellAt: integer('tell_at').array().notNull().default([]),
    /** The share that they were last told of; null where it was given back since, or never reached. */
    toldShare: integer('told_share'),
    /** How many requests reserve something of it, and orders commit something: kept beside the ledger for speed. */
    requestsBehind: integer('requests_behind').notNull().default(0),
    ordersBehind: integer('orders_behind').notNull().default(0),
  },
  (t) => [
    check('budget_line_behind', sql`${t.requestsBehind} >= 0 and ${t.ordersBehind} >= 0`),
    unique('budget_line_once').on(t.departmentId, t.accountCode, t.projectCode, t.fiscalYear).nullsNotDistinct(),
    index('budget_line_holder').on(t.holderId),
    check('budget_line_control', sql`${t.control} in ('tells', 'asks', 'refuses')`),
    check('budget_line_span', sql`${t.span} in ('year', 'to date', 'period')`),
  ],
)

/**
 * What each period of a line was given and what stands in each stage: kept beside the ledger for speed.
 * The stages must equal the sums of the ledger's entries at any moment.
 */
export const budgetBalance = pgTable(
  'budget_balance',
  {
    budgetLineId: uuid('budget_line_id')
      .notNull()
      .references(() => budgetLine.id),
    period: integer().notNull(),
    budgeted: numeric({ precision: 20, scale: 4 }).notNull().default('0'),
    adjustments: numeric({ precision: 20, scale: 4 }).notNull().default('0'),
    reserved: numeric({ precision: 20, scale: 4 }).notNull().default('0'),
    committed: numeric({ precision: 20, scale: 4 }).notNull().default('0'),
    spent: numeric({ precision: 20, scale: 4 }).notNull().default('0'),
  },
  (t) => [
    primaryKey({ columns: [t.budgetLineId, t.period] }),
    check('budget_balance_reserved', sql`${t.reserved} >= 0`),
    check('budget_balance_period', sql`${t.period} between 1 and 12`),
  ],
)

/** What weighed on a budget line before Rekko: spent, or committed by an order that is still open elsewhere. */
export const openingBalance = pgTable(
  'opening_balance',
  {
    id: uuid().primaryKey().defaultRandom(),
    budgetLineId: uuid('budget_line_id').notNull(),
    period: integer().notNull(),
    stage: text().$type<'spent' | 'committed'>().notNull(),
    /** Of an order: its number elsewhere. */
    number: text().notNull().default(''),
    supplierId: uuid('supplier_id').references(() => supplier.id),
    name: text().notNull(),
    amount: numeric({ precision: 20, scale: 4 }).notNull(),
    /** It weighs on the line no more. */
    isOver: boolean('is_over').notNull().default(false),
  },
  (t) => [
    foreignKey({
      name: 'opening_balance_of',
      columns: [t.budgetLineId, t.period],
      foreignColumns: [budgetBalance.budgetLineId, budgetBalance.period],
    }),
    unique('opening_balance_once').on(t.budgetLineId, t.period, t.stage, t.number),
    check('opening_balance_stage', sql`${t.stage} in ('spent', 'committed')`),
    check('opening_balance_number', sql`${t.stage} = 'spent' or ${t.number} <> ''`),
  ],
)

/**
 * Money that moves between budget lines once whoever decides agrees; without a line that gives, an adjustment, which
 * finance makes at once. What is done never changes: it is moved back by another.
 */
export const budgetTransfer = pgTable(
  'budget_transfer',
  {
    id: uuid().primaryKey().defaultRandom(),
    fromLineId: uuid('from_line_id').references(() => budgetLine.id),
    toLineId: uuid('to_line_id')
      .notNull()
      .references(() => budgetLine.id),
    period: integer().notNull(),
    amount: numeric({ precision: 20, scale: 4 }).notNull(),
    reason: text().notNull(),
    state: text().$type<TransferState>().notNull(),
    proposedById: uuid('proposed_by_id')
      .notNull()
      .references(() => person.id),
    proposedAt: timestamp('proposed_at', { withTimezone: true }).notNull(),
    /** Whoever decides on it; null: any of finance. */
    deciderId: uuid('decider_id').references(() => person.id),
    decidedById: uuid('decided_by_id').references(() => person.id),
    decidedAt: timestamp('decided_at', { withTimezone: true }),
    comment: text().notNull().default(''),
  },
  (t) => [
    index('budget_transfer_from').on(t.fromLineId),
    index('budget_transfer_to').on(t.toLineId),
    check('budget_transfer_state', sql`${t.state} in ('proposed', 'done', 'refused', 'taken back')`),
    check('budget_transfer_amount', sql`${t.amount} > 0 or (${t.fromLineId} is null and ${t.amount} <> 0)`),
    check('budget_transfer_lines', sql`${t.fromLineId} <> ${t.toLineId}`),
    check('budget_transfer_period', sql`${t.period} between 1 and 12`),
  ],
)

/** What became of a line of a year that ended, as a run of its end wrote it. */
export interface EndedLine {
  readonly id: string
  readonly name: string
  readonly department: string
  readonly choice: YearEndChoice
  readonly reserved: DecimalText
  readonly committed: DecimalText
  readonly documents: number
}

/** A run of the end of a fiscal year: what was carried to the next, and released. What it entered stands under `at`. */
export const yearEndRun = pgTable(
  'year_end_run',
  {
    id: uuid().primaryKey(),
    fiscalYear: integer('fiscal_year').notNull(),
    at: timestamp({ withTimezone: true }).notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => person.id),
    /** What was carried brought its money along, as adjustments. */
    withMoney: boolean('with_money').notNull(),
    lines: jsonb().$type<readonly EndedLine[]>().notNull(),
  },
  (t) => [index('year_end_run_year').on(t.fiscalYear, t.at)],
)

/** Append-only: one entry for each document line, coding, stage and amount. */
export const budgetEntry = pgTable(
  'budget_entry',
  {
    seq: bigserial({ mode: 'number' }).primaryKey(),
    at: timestamp({ withTimezone: true }).notNull(),
    budgetLineId: uuid('budget_line_id').notNull(),
    period: integer().notNull(),
    stage: text().$type<BudgetStage>().notNull(),
    amount: numeric({ precision: 20, scale: 4 }).notNull(),
    documentKind: text('document_kind').notNull(),
    documentId: uuid('document_id').notNull(),
    lineId: uuid('line_id').notNull(),
    codingAt: integer('coding_at').notNull(),
    cause: text().notNull(),
    actorId: uuid('actor_id').references(() => person.id),
  },
  (t) => [
    // A line has a row for each period from the day it is made: nothing stands where no balance would move.
    foreignKey({
      name: 'budget_entry_balance',
      columns: [t.budgetLineId, t.period],
      foreignColumns: [budgetBalance.budgetLineId, budgetBalance.period],
    }),
    index('budget_entry_line').on(t.budgetLineId, t.seq),
    index('budget_entry_document').on(t.documentId),
    index('budget_entry_document_line').on(t.lineId),
    check('budget_entry_stage', sql`${t.stage} in ('reserved', 'committed', 'spent')`),
  ],
)
