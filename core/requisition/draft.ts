import { isDecimalText, type DecimalText } from '#core/base/decimal'
import type { Address } from '#core/base/address'
import type { Day } from '#core/base/day'
import { lineNet, type Adjustment } from '#core/base/line-net'
import type { Money } from '#core/base/money'
import type { SplitMethod } from '#core/base/split'

/** One budget line that pays for a line, with its part where several do. */
export interface DraftCoding {
  readonly budgetLineId: string
  readonly value: DecimalText | null
}

/** What is taken off a line: percent of its gross, or an amount in its currency. */
export interface LineDiscount {
  readonly of: 'percent' | 'amount'
  readonly value: DecimalText
}

/** What was written into own fields, by the field's id. */
export type OwnValues = Readonly<Record<string, string>>

export interface DraftLine {
  readonly id: string
  readonly itemId: string | null
  readonly categoryId: string | null
  readonly description: string
  /** More about it: a second line of text, which the order carries too. */
  readonly secondDescription: string
  readonly quantity: DecimalText
  readonly unit: string
  /** Without tax; null while the price is not known. */
  readonly unitPrice: DecimalText | null
  /** The catalogue's price when it was picked, so that one written by hand stands beside it. */
  readonly listPrice: DecimalText | null
  /** The price as it was typed, where it was typed with tax. */
  readonly priceWithTax: DecimalText | null
  readonly priceBase: DecimalText
  readonly discount: LineDiscount | null
  readonly currency: string
  readonly taxCode: string
  /** Null: the buyer decides. */
  readonly supplierId: string | null
  readonly supplierPart: string | null
  /** Null: when the whole is needed. */
  readonly needBy: Day | null
  readonly noteToSupplier: string
  readonly noteInternal: string
  readonly jobId: string | null
  readonly own: OwnValues
  readonly splitMethod: SplitMethod
  readonly codings: readonly DraftCoding[]
}

/** A requisition as its author writes it. */
export interface Draft {
  readonly kind: string
  readonly title: string
  readonly departmentId: string | null
  readonly shipToId: string | null
  /** An address for this delivery alone; it stands instead of a ship-to of the organisation. */
  readonly address: Address | null
  /** Room or door. */
  readonly shipToDetail: string
  readonly attention: string
  readonly telephone: string
  readonly instructions: string
  readonly needBy: Day | null
  readonly why: string
  /** Asked for when a budget line that asks is passed. */
  readonly overBudgetReason: string
  /** Asked for by rules of the organisation. */
  readonly justification: string
  readonly noteToSupplier: string
  readonly noteInternal: string
  readonly jobId: string | null
  readonly own: OwnValues
  /** Ids of the warnings that its author has read. */
  readonly readWarnings: readonly string[]
  /** Null: today. */
  readonly accountingDate: Day | null
  readonly lines: readonly DraftLine[]
}

/** The most lines a requisition may have. */
export const MOST_LINES = 500

/** What a line says when nothing is said: a line is made by naming what differs. */
export const BLANK_LINE: Omit<DraftLine, 'id'> = {
  itemId: null,
  categoryId: null,
  description: '',
  secondDescription: '',
  quantity: '1',
  unit: 'H87',
  unitPrice: null,
  listPrice: null,
  priceWithTax: null,
  priceBase: '1',
  discount: null,
  currency: 'EUR',
  taxCode: 'S',
  supplierId: null,
  supplierPart: null,
  needBy: null,
  noteToSupplier: '',
  noteInternal: '',
  jobId: null,
  own: {},
  splitMethod: 'percent',
  codings: [],
}

/** What a requisition says when nothing is said. */
export const BLANK_DRAFT: Draft = {
  kind: 'goods',
  title: '',
  departmentId: null,
  shipToId: null,
  address: null,
  shipToDetail: '',
  attention: '',
  telephone: '',
  instructions: '',
  needBy: null,
  why: '',
  overBudgetReason: '',
  justification: '',
  noteToSupplier: '',
  noteInternal: '',
  jobId: null,
  own: {},
  readWarnings: [],
  accountingDate: null,
  lines: [],
}

/** A draft that was kept before some fields existed, with those fields blank. */
export function completeDraft(
  kept: Partial<Omit<Draft, 'lines'>> & { readonly lines?: readonly (Partial<DraftLine> & { readonly id: string })[] },
): Draft {
  return { ...BLANK_DRAFT, ...kept, lines: (kept.lines ?? []).map((line) => ({ ...BLANK_LINE, ...line })) }
}

/** The net of a draft's line; null while it has no price, or its quantity cannot be read. */
export function draftNet(
  line: Pick<DraftLine, 'quantity' | 'unitPrice' | 'priceBase' | 'discount' | 'currency'>,
): Money | null {
  const { quantity, unitPrice } = line
  if (unitPrice === null || !isDecimalText(quantity)) return null
  return lineNet({ ...line, unitPrice, adjustments: adjustmentsOf(line) })
}

/** A line's discount as the rule of sums takes it. */
export function adjustmentsOf(line: Pick<DraftLine, 'discount'>): Adjustment[] {
  if (line.discount === null) return []
  return [
    line.discount.of === 'percent'
      ? { kind: 'allowance', percent: line.discount.value }
      : { kind: 'allowance', amount: line.discount.value },
  ]
}
