import type { Money } from '#core/base/money'
import type { Policy } from '#core/approval/policy'
import type { Day, FiscalPeriod } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import type { BudgetLineFacts } from '#core/budget/available'
import type { PeopleFacts } from '#core/people/person'
import type { ItemFacts, SupplierFacts } from '#core/supplier/warning'
import type { Job } from './job'
import type { AgreementFacts } from './line-agreement'
import type { OwnField } from './own-field'
import type { AttachedAs, RequestKind, RequestRule } from './rules'

/** A budget line as a requisition needs it. */
export interface PayingLine extends BudgetLineFacts {
  readonly departmentId: string
  readonly account: string
  readonly project: string | null
  readonly holderId: string | null
  /** What its department can reclaim of tax, in percent. */
  readonly reclaimable: DecimalText
  readonly fiscalYear: number
}

/** Everything outside the draft that its verdict rests on. The page gets only those of its own draft. */
export interface DraftFacts {
  readonly today: Day
  readonly baseCurrency: string
  readonly fiscalStartMonth: number
  readonly closedPeriods: readonly FiscalPeriod[]
  readonly ownerId: string
  readonly raisedById: string
  /** The owner's other requests that an own limit is held against together with this one. */
  readonly ownRecent: readonly OwnRecent[]
  readonly departmentIds: readonly string[]
  readonly branch: readonly string[]
  readonly budgetLines: ReadonlyMap<string, PayingLine>
  readonly taxCodes: ReadonlyMap<
    string,
    { readonly name: string; readonly category: string; readonly rate: DecimalText; readonly retired?: boolean }
  >
  /** Factors into the base currency, by currency. */
  readonly perBase: ReadonlyMap<string, DecimalText>
  /** Those that the draft names, and in the page those picked since. */
  readonly suppliers: ReadonlyMap<string, SupplierFacts>
  readonly items: ReadonlyMap<string, ItemFacts>
  /** With the suppliers that the draft names, as it is kept. */
  readonly agreements: readonly AgreementFacts[]
  readonly holidays: ReadonlySet<Day>
  readonly kinds: ReadonlyMap<string, RequestKind>
  readonly ownFields: readonly OwnField[]
  readonly rules: readonly RequestRule[]
  readonly jobs: ReadonlyMap<string, Job>
  /** The kinds of the files that are attached. */
  readonly attached: readonly AttachedAs[]
  readonly policy: Policy
  readonly people: PeopleFacts
}

/** A request that its owner sent lately and that stands: whom it names, and its approval amount. */
export interface OwnRecent {
  readonly supplierIds: readonly string[]
  readonly amount: Money
}
