import { HUNDRED, dec, decimalPlaces, isDecimalText } from '#core/base/decimal'
import { warningsAtSending } from '#core/agreement/ceiling'
import { sum, type Money } from '#core/base/money'
import { checkSplit } from '#core/base/split'
import { isUnit } from '#core/base/unit'
import { addBusinessDays, isDay, type Day, type FiscalPeriod } from '#core/base/day'
import { netUnitPrice } from '#core/base/line-net'
import type { BudgetOutcome } from '#core/budget/available'
import type { Route } from '#core/approval/route'
import { draftNet, MOST_LINES, type Draft, type DraftLine } from './draft'
import type { DraftFacts } from './draft-facts'
import { agreementOfLine, type AgreementFacts } from './line-agreement'
import { checkOwnFields, isAsked } from './own-field'
import { isMet, mostQuotes, type AttachmentKind, type RequestRule } from './rules'
import { warningsOf } from '#core/supplier/warning'

/** A field of the draft that an entry of the missing list leads to. */
export type FieldRef =
  | 'kind'
  | 'owner'
  | 'department'
  | 'ship-to'
  | 'need-by'
  | 'why'
  | 'lines'
  | 'over-budget-reason'
  | 'accounting-date'
  | 'attachments'
  | 'attachment-kind'
  | 'justification'
  | 'job'
  | { readonly line: string; readonly field: LineField | `own ${string}` }
  | { readonly line: null; readonly field: `own ${string}` | `reading ${string}` }
type LineField =
  | 'description'
  | 'quantity'
  | 'unit'
  | 'price'
  | 'coding'
  | 'supplier'
  | 'tax'
  | 'discount'
  | 'job'
  | 'need-by'
  | 'warning'

/** What stands between a draft and its sending, or (`stops` false) what its author should know. */
export type Missing = { readonly at: FieldRef; readonly stops: boolean } & (
  | {
      readonly code:
        | 'no-kind'
        | 'address-unfinished'
        | 'no-department'
        | 'department-not-open'
        | 'no-ship-to'
        | 'no-need-by'
        | 'need-by-past'
        | 'no-why'
        | 'no-lines'
        | 'too-many-lines'
    }
  | {
      readonly code:
        | 'line-no-description'
        | 'line-no-price'
        | 'line-no-coding'
        | 'line-split'
        | 'line-unit'
        | 'line-tax'
        | 'line-coding-unknown'
        | 'line-supplier-blocked'
        | 'line-need-by-past'
      readonly name: string
    }
  | {
      readonly code: 'line-quantity' | 'line-price-range' | 'line-price-with-tax' | 'line-discount'
      readonly name: string
    }
  | { readonly code: 'warning-unread' | 'warning-stops'; readonly name: string; readonly text: string }
  | { readonly code: 'own-field-missing' | 'own-field-unreadable'; readonly field: string; readonly name: string }
  | { readonly code: 'need-by-soon'; readonly earliest: Day; readonly name: string }
  | { readonly code: 'quotes-missing'; readonly has: number; readonly needs: number; readonly why: string }
  | { readonly code: 'attachment-unsaid'; readonly count: number }
  | { readonly code: 'attachment-missing'; readonly kind: AttachmentKind; readonly why: string }
  | { readonly code: 'justification-missing'; readonly why: string }
  | { readonly code: 'reading-unread'; readonly text: string }
  | { readonly code: 'job-unknown' }
  | { readonly code: 'line-currency'; readonly name: string; readonly currency: string }
  | {
      readonly code: 'budget-refuses' | 'budget-asks' | 'budget-tells'
      readonly name: string
      readonly by: Money
      readonly left: Money
    }
  /** What draws on an agreement passes it, with all else that is asked for; or it ends soon. */
  | { readonly code: 'agreement-passed'; readonly agreement: string; readonly by: Money }
  | { readonly code: 'agreement-ends'; readonly agreement: string; readonly day: Day }
  | { readonly code: 'period-closed'; readonly period: FiscalPeriod }
  | { readonly code: 'route-held'; readonly held: NonNullable<Route['held']> }
)

type Check = (draft: Draft, facts: DraftFacts, found: Found) => Missing[]
interface Found {
  readonly lines: readonly Missing[]
  readonly budget: readonly BudgetOutcome[]
  readonly route: Route
  readonly period: FiscalPeriod
  readonly rules: readonly RequestRule[]
  readonly nets: ReadonlyMap<string, Money>
}

const LARGEST = dec('1000000000')

/** Every check, run one after the other; the list collects all, so that a person hears everything at once. */
export function findMissing(draft: Draft, facts: DraftFacts, found: Found): Missing[] {
  return CHECKS.flatMap((check) => check(draft, facts, found))
}

const header: Check = (draft, facts) => {
  const missing: Missing[] = []
  if (!facts.kinds.has(draft.kind)) missing.push({ at: 'kind', stops: true, code: 'no-kind' })
  if (draft.departmentId === null) missing.push({ at: 'department', stops: true, code: 'no-department' })
  else if (!facts.departmentIds.includes(draft.departmentId))
    missing.push({ at: 'department', stops: true, code: 'department-not-open' })
  if (draft.needBy === null) missing.push({ at: 'need-by', stops: true, code: 'no-need-by' })
  else if (!isDay(draft.needBy) || draft.needBy < facts.today)
    missing.push({ at: 'need-by', stops: true, code: 'need-by-past' })
  if (draft.address !== null) {
    const { name, street, town } = draft.address
    if ([name, street, town].some((part) => part.trim() === ''))
      missing.push({ at: 'ship-to', stops: true, code: 'address-unfinished' })
  } else if (draft.shipToId === null) missing.push({ at: 'ship-to', stops: true, code: 'no-ship-to' })
  if (draft.jobId !== null && !facts.jobs.has(draft.jobId))
    missing.push({ at: 'job', stops: true, code: 'job-unknown' })
  if (draft.why.trim() === '') missing.push({ at: 'why', stops: true, code: 'no-why' })
  if (draft.lines.length === 0) missing.push({ at: 'lines', stops: true, code: 'no-lines' })
  if (draft.lines.length > MOST_LINES) missing.push({ at: 'lines', stops: true, code: 'too-many-lines' })
  return missing
}

const lines: Check = (_draft, _facts, found) => [...found.lines]

/** What is in the header's own fields; a requisition's fields are asked for by its kind and department. */
const ownFields: Check = (draft, facts) => {
  const asked = facts.ownFields.filter((f) => f.on === 'requisition' && isAsked(f, { ...draft, categoryId: null }))
  return checkOwnFields(asked, draft.own, facts).map(({ field, wrong }): Missing => ({
    at: { line: null, field: `own ${field.id}` },
    stops: true,
    code: wrong === 'missing' ? 'own-field-missing' : 'own-field-unreadable',
    field: field.name,
    name: '',
  }))
}

/** Tells of the agreements that the lines draw on by themselves: that one is passed with this, or ends soon. */
const agreements: Check = (draft, facts, found) => {
  const drawn = new Map<AgreementFacts, DraftLine[]>()
  for (const line of draft.lines) {
    const on = agreementOfLine(line, draft, facts)
    if (on !== null) drawn.set(on, [...(drawn.get(on) ?? []), line])
  }
  return [...drawn].flatMap(([{ number, of, currency }, lines]) => {
    const amount = sum(
      lines.flatMap((l) => found.nets.get(l.id) ?? []),
      currency,
    )
    const at = { line: lines[0]?.id ?? '', field: 'supplier' as const }
    return warningsAtSending(of, amount, facts.today).flatMap((w): Missing[] =>
      w.code === 'passes-ceiling'
        ? [{ at, stops: false, code: 'agreement-passed', agreement: number, by: w.by }]
        : w.code === 'ends-soon'
          ? [{ at, stops: false, code: 'agreement-ends', agreement: number, day: w.day }]
          : [],
    )
  })
}

/** Warns when something cannot be here by the day: today and the longest lead time of a line, in business days. */
const leadTime: Check = (draft, facts) => {
  const soon = new Map<number, Day>()
  const late = draft.lines.flatMap((l) => {
    const needBy = l.needBy ?? draft.needBy
    const days =
      (l.itemId === null ? undefined : facts.items.get(l.itemId)?.leadDays) ??
      (l.supplierId === null ? undefined : facts.suppliers.get(l.supplierId)?.leadDays)
    if (days === undefined || days <= 0 || needBy === null || !isDay(needBy) || needBy < facts.today) return []
    const earliest = soon.get(days) ?? addBusinessDays(facts.today, Math.min(days, 400), facts.holidays)
    soon.set(days, earliest)
    const at: FieldRef = l.needBy === null ? 'need-by' : { line: l.id, field: 'need-by' }
    return needBy < earliest ? [{ at, days, earliest, name: l.description.trim() }] : []
  })
  const longest = late.reduce<(typeof late)[number] | null>((a, b) => (a === null || b.days > a.days ? b : a), null)
  if (longest === null) return []
  const { at, earliest, name } = longest
  return [{ at, stops: false, code: 'need-by-soon', earliest, name }]
}

/**
 * What files are, and what the organisation's rules ask for; of several that ask for quotes, the one that asks for the
 * most counts.
 */
const rules: Check = (draft, facts, found) => {
  const missing: Missing[] = []
  const count = facts.attached.filter((k) => k === 'unsaid').length
  if (count > 0) missing.push({ at: 'attachment-kind', stops: true, code: 'attachment-unsaid', count })
  const quotes = mostQuotes(found.rules)
  const has = facts.attached.filter((k) => k === 'quote').length
  if (quotes !== null && has < quotes.count)
    missing.push({
      at: 'attachments',
      stops: true,
      code: 'quotes-missing',
      has,
      needs: quotes.count,
      why: quotes.rule.name,
    })
  for (const rule of found.rules.filter((r) => !isMet(r, draft, facts.attached))) {
    const { id, name, asks } = rule
    if (asks.what === 'attachment')
      missing.push({ at: 'attachments', stops: true, code: 'attachment-missing', kind: asks.kind, why: name })
    if (asks.what === 'justification')
      missing.push({ at: 'justification', stops: true, code: 'justification-missing', why: name })
    if (asks.what === 'reading')
      missing.push({ at: { line: null, field: `reading ${id}` }, stops: true, code: 'reading-unread', text: asks.text })
  }
  return missing
}

/** What one line lacks, by itself, on a draft of that kind and department. */
export function checkLine(
  line: DraftLine,
  draft: Pick<Draft, 'kind' | 'departmentId' | 'readWarnings'>,
  facts: DraftFacts,
): Missing[] {
  const name = line.description.trim()
  const at = (field: LineField | `own ${string}`) => ({ at: { line: line.id, field } as const, stops: true, name })
  const missing: Missing[] = []
  if (name === '') missing.push({ ...at('description'), code: 'line-no-description' })
  if (
    !isDecimalText(line.quantity) ||
    !dec(line.quantity).isPositive() ||
    dec(line.quantity).gt(LARGEST) ||
    decimalPlaces(line.quantity) > 6
  ) {
    missing.push({ ...at('quantity'), code: 'line-quantity' })
  }
  if (!isUnit(line.unit)) missing.push({ ...at('unit'), code: 'line-unit' })
  if (line.unitPrice === null) missing.push({ ...at('price'), code: 'line-no-price' })
  else if (dec(line.unitPrice).isNegative() || dec(line.unitPrice).gt(LARGEST) || decimalPlaces(line.unitPrice) > 6) {
    missing.push({ ...at('price'), code: 'line-price-range' })
  }
  if (!facts.taxCodes.has(line.taxCode)) missing.push({ ...at('tax'), code: 'line-tax' })
  if (!facts.perBase.has(line.currency))
    missing.push({ ...at('price'), code: 'line-currency', currency: line.currency })
  const rate = facts.taxCodes.get(line.taxCode)?.rate
  if (
    line.priceWithTax !== null &&
    rate !== undefined &&
    (line.unitPrice === null || !dec(netUnitPrice(line.priceWithTax, rate)).eq(dec(line.unitPrice)))
  ) {
    missing.push({ ...at('price'), code: 'line-price-with-tax' })
  }
  if (line.discount !== null && !isDiscount(line)) missing.push({ ...at('discount'), code: 'line-discount' })
  if (line.needBy !== null && (!isDay(line.needBy) || line.needBy < facts.today))
    missing.push({ ...at('need-by'), code: 'line-need-by-past' })
  if (line.jobId !== null && !facts.jobs.has(line.jobId))
    missing.push({ at: { line: line.id, field: 'job' }, stops: true, code: 'job-unknown' })
  if (line.supplierId !== null && facts.suppliers.get(line.supplierId)?.standing === 'on hold')
    missing.push({ ...at('supplier'), code: 'line-supplier-blocked' })
  for (const warning of warningsOf(line, facts)) {
    if (warning.mode === 'stops') missing.push({ ...at('warning'), code: 'warning-stops', text: warning.text ?? '' })
    if (warning.mode === 'must be read' && !draft.readWarnings.includes(warning.id))
      missing.push({ ...at('warning'), code: 'warning-unread', text: warning.text ?? '' })
  }
  const asked = facts.ownFields.filter((f) => f.on === 'line' && isAsked(f, { ...draft, categoryId: line.categoryId }))
  for (const { field, wrong } of checkOwnFields(asked, line.own, facts)) {
    missing.push({
      ...at(`own ${field.id}`),
      code: wrong === 'missing' ? 'own-field-missing' : 'own-field-unreadable',
      field: field.name,
    })
  }
  if (line.codings.length === 0) missing.push({ ...at('coding'), code: 'line-no-coding' })
  else if (line.codings.some((c) => !facts.budgetLines.has(c.budgetLineId)))
    missing.push({ ...at('coding'), code: 'line-coding-unknown' })
  else if (
    checkSplit(
      { method: line.splitMethod, values: line.codings.map((c) => c.value) },
      { quantity: line.quantity, net: draftNet(line) },
    ).length > 0
  ) {
    missing.push({ ...at('coding'), code: 'line-split' })
  }
  return missing
}

/** From 0 to all of it: percent to 100, an amount to the line's gross. */
function isDiscount(line: DraftLine): boolean {
  if (line.discount === null || !isDecimalText(line.discount.value)) return false
  const value = dec(line.discount.value)
  const most =
    line.discount.of === 'percent'
      ? HUNDRED
      : dec(line.quantity)
          .times(dec(line.unitPrice ?? '0'))
          .dividedBy(dec(line.priceBase))
  return !value.isNegative() && value.lte(most) && decimalPlaces(line.discount.value) <= 6
}

const budgets: Check = (draft, _facts, { budget }) =>
  budget.flatMap((b): Missing[] => {
    if (b.passedBy === null) return []
    const about = { name: b.name, by: b.passedBy, left: b.before }
    if (b.control === 'refuses') return [{ at: 'lines', stops: true, code: 'budget-refuses', ...about }]
    if (b.control === 'tells') return [{ at: 'lines', stops: false, code: 'budget-tells', ...about }]
    return [{ at: 'over-budget-reason', stops: draft.overBudgetReason.trim() === '', code: 'budget-asks', ...about }]
  })

const period: Check = (_draft, facts, found) =>
  facts.closedPeriods.some((p) => p.year === found.period.year && p.period === found.period.period)
    ? [{ at: 'accounting-date', stops: true, code: 'period-closed', period: found.period }]
    : []

const route: Check = (draft, _facts, found) =>
  found.route.held === null || draft.lines.length === 0
    ? []
    : [{ at: 'lines', stops: true, code: 'route-held', held: found.route.held }]

const CHECKS: readonly Check[] = [header, ownFields, lines, rules, budgets, agreements, period, route, leadTime]
