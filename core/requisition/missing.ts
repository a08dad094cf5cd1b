import { dec, decimalPlaces, isDecimalText } from '#core/base/decimal'
import { type Money } from '#core/base/money'
import { checkSplit } from '#core/base/split'
import { isUnit } from '#core/base/unit'
import { isDay, type FiscalPeriod } from '#core/base/day'
import { type BudgetOutcome } from '#core/budget/available'
import { type Route } from '#core/approval/route'
import { MOST_LINES, type Draft, type DraftLine } from './draft'
import { type DraftFacts } from './compute'

/** A field of the draft that an entry of the missing list leads to. */
export type FieldRef = 'department' | 'ship-to' | 'need-by' | 'why' | 'lines' | 'over-budget-reason' | 'accounting-date'
  | { readonly line: string; readonly field: 'description' | 'quantity' | 'unit' | 'price' | 'coding' | 'supplier' | 'tax' }

/** What stands between a draft and its sending, or (`stops` false) what its author should know. */
export type Missing = { readonly at: FieldRef; readonly stops: boolean } & (
  | { readonly code: 'no-department' | 'department-not-open' | 'no-ship-to' | 'no-need-by' | 'need-by-past' | 'no-why' | 'no-lines' | 'too-many-lines' }
  | { readonly code: 'line-no-description' | 'line-no-price' | 'line-no-coding' | 'line-split' | 'line-unit' | 'line-tax' | 'line-coding-unknown' | 'line-supplier-blocked'; readonly name: string }
  | { readonly code: 'line-quantity' | 'line-price-range'; readonly name: string }
  | { readonly code: 'line-currency'; readonly name: string; readonly currency: string }
  | { readonly code: 'budget-refuses' | 'budget-asks' | 'budget-tells'; readonly name: string; readonly by: Money; readonly left: Money }
  | { readonly code: 'period-closed'; readonly period: FiscalPeriod }
  | { readonly code: 'route-held'; readonly held: NonNullable<Route['held']>['code'] }
)

type Check = (draft: Draft, facts: DraftFacts, found: Found) => Missing[]
interface Found { readonly lines: readonly Missing[]; readonly budget: readonly BudgetOutcome[]; readonly route: Route; readonly period: FiscalPeriod }

const LARGEST = dec('1000000000')

/** Every check, run one after the other; the list collects all, so that a person hears everything at once. */
export function findMissing(draft: Draft, facts: DraftFacts, found: Found): Missing[] {
  return CHECKS.flatMap((check) => check(draft, facts, found))
}

const header: Check = (draft, facts) => {
  const missing: Missing[] = []
  if (draft.departmentId === null) missing.push({ at: 'department', stops: true, code: 'no-department' })
  else if (!facts.departmentIds.includes(draft.departmentId)) missing.push({ at: 'department', stops: true, code: 'department-not-open' })
  if (draft.needBy === null) missing.push({ at: 'need-by', stops: true, code: 'no-need-by' })
  else if (!isDay(draft.needBy) || draft.needBy < facts.today) missing.push({ at: 'need-by', stops: true, code: 'need-by-past' })
  if (draft.shipToId === null) missing.push({ at: 'ship-to', stops: true, code: 'no-ship-to' })
  if (draft.why.trim() === '') missing.push({ at: 'why', stops: true, code: 'no-why' })
  if (draft.lines.length === 0) missing.push({ at: 'lines', stops: true, code: 'no-lines' })
  if (draft.lines.length > MOST_LINES) missing.push({ at: 'lines', stops: true, code: 'too-many-lines' })
  return missing
}

const lines: Check = (_draft, _facts, found) => [...found.lines]

/** What one line lacks, by itself. */
export function checkLine(line: DraftLine, facts: DraftFacts): Missing[] {
  const name = line.description.trim()
  const at = (field: Exclude<FieldRef, string>['field']) => ({ at: { line: line.id, field } as const, stops: true, name })
  const missing: Missing[] = []
  if (name === '') missing.push({ ...at('description'), code: 'line-no-description' })
  if (!isDecimalText(line.quantity) || dec(line.quantity).lte(0) || dec(line.quantity).gt(LARGEST) || decimalPlaces(line.quantity) > 6) {
    missing.push({ ...at('quantity'), code: 'line-quantity' })
  }
  if (!isUnit(line.unit)) missing.push({ ...at('unit'), code: 'line-unit' })
  if (line.unitPrice === null) missing.push({ ...at('price'), code: 'line-no-price' })
  else if (dec(line.unitPrice).isNegative() || dec(line.unitPrice).gt(LARGEST) || decimalPlaces(line.unitPrice) > 6) {
    missing.push({ ...at('price'), code: 'line-price-range' })
  }
  if (!facts.taxCodes.has(line.taxCode)) missing.push({ ...at('tax'), code: 'line-tax' })
  if (!facts.toBase.has(line.currency)) missing.push({ ...at('price'), code: 'line-currency', currency: line.currency })
  if (line.supplierId !== null && facts.blockedSuppliers.has(line.supplierId)) missing.push({ ...at('supplier'), code: 'line-supplier-blocked' })
  if (line.codings.length === 0) missing.push({ ...at('coding'), code: 'line-no-coding' })
  else if (line.codings.some((c) => !facts.budgetLines.has(c.budgetLineId))) missing.push({ ...at('coding'), code: 'line-coding-unknown' })
  else if (checkSplit({ method: line.splitMethod, values: line.codings.map((c) => c.value) }, line.quantity).length > 0) {
    missing.push({ ...at('coding'), code: 'line-split' })
  }
  return missing
}

const budgets: Check = (draft, _facts, { budget }) => budget.flatMap((b): Missing[] => {
  if (b.passedBy === null) return []
  const about = { name: b.name, by: b.passedBy, left: b.before }
  if (b.control === 'refuses') return [{ at: 'lines', stops: true, code: 'budget-refuses', ...about }]
  if (b.control === 'tells') return [{ at: 'lines', stops: false, code: 'budget-tells', ...about }]
  return [{ at: 'over-budget-reason', stops: draft.overBudgetReason.trim() === '', code: 'budget-asks', ...about }]
})

const period: Check = (_draft, facts, found) =>
  facts.closedPeriods.some((p) => p.year === found.period.year && p.period === found.period.period)
    ? [{ at: 'accounting-date', stops: true, code: 'period-closed', period: found.period }] : []

const route: Check = (draft, _facts, found) =>
  found.route.held === null || draft.lines.length === 0 ? [] : [{ at: 'lines', stops: true, code: 'route-held', held: found.route.held.code }]

const CHECKS: readonly Check[] = [header, lines, budgets, period, route]
