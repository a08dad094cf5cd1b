import { type DecimalText } from '#core/base/decimal'
import { type Day } from '#core/base/day'
import { type SplitMethod } from '#core/base/split'

/** One budget line that pays for a line, with its part where several do. */
export interface DraftCoding {
  readonly budgetLineId: string
  readonly value: DecimalText | null
}

export interface DraftLine {
  readonly id: string
  readonly itemId: string | null
  readonly categoryId: string | null
  readonly description: string
  readonly quantity: DecimalText
  readonly unit: string
  /** Null while the price is not known. */
  readonly unitPrice: DecimalText | null
  readonly priceBase: DecimalText
  readonly currency: string
  readonly taxCode: string
  /** Null: the buyer decides. */
  readonly supplierId: string | null
  readonly supplierPart: string | null
  readonly splitMethod: SplitMethod
  readonly codings: readonly DraftCoding[]
}

/** A requisition as its author writes it. */
export interface Draft {
  readonly kind: string
  readonly title: string
  readonly departmentId: string | null
  readonly shipToId: string | null
  readonly shipToDetail: string
  readonly needBy: Day | null
  readonly why: string
  /** Asked for when a budget line that asks is passed. */
  readonly overBudgetReason: string
  /** Null: today. */
  readonly accountingDate: Day | null
  readonly lines: readonly DraftLine[]
}

/** The most lines a requisition may have. */
export const MOST_LINES = 500
