import { dec, type DecimalText } from '#core/base/decimal'
import { convert, sum, type Money } from '#core/base/money'
import { lineNet } from '#core/base/line-net'
import { documentSums, type DocumentSums } from '#core/base/document-sums'
import { checkSplit } from '#core/base/split'
import { fiscalPeriod, type FiscalPeriod } from '#core/base/day'
import { checkBudget, type BudgetOutcome } from '#core/budget/available'
import { effectsOf, sumByBudgetLine, type CodedLine, type Effect } from '#core/budget/effect'
import { makeRoute, type Route } from '#core/approval/route'
import type { Subject, SupplierSort } from '#core/approval/policy'
import { adjustmentsOf, draftNet, type Draft, type DraftLine } from './draft'
import { isAsked } from './own-field'
import { checkLine, findMissing, type Missing } from './missing'
import type { DraftFacts } from './draft-facts'
import { hasAgreement } from './line-agreement'
import { rulesThatHold, type RequestRule } from './rules'

export interface DraftVerdict {
  readonly lineNets: ReadonlyMap<string, Money>
  /** By currency; an order has one, a requisition may have several. */
  readonly sums: readonly (DocumentSums & { readonly currency: string })[]
  readonly effects: ReadonlyMap<string, readonly Effect[]>
  readonly approvalAmount: Money
  /** What of the tax comes back, in the base currency: tax on the lines less what the budgets feel of it. */
  readonly budget: readonly BudgetOutcome[]
  readonly period: FiscalPeriod
  readonly subject: Subject
  readonly route: Route
  /** The rules of the organisation that hold for it, met or not. */
  readonly rules: readonly RequestRule[]
  readonly missing: readonly Missing[]
}

/** All that follows from one line by itself: its net, what each budget feels of it, and what it lacks. */
interface LineOutcome {
  readonly worth: { readonly net: Money; readonly effects: readonly Effect[] } | null
  readonly missing: readonly Missing[]
}

/**
 * What lines came to when they were computed last, for a page that computes a draft again at every
 * key: a line that did not change, under the same facts, is not worked out again.
 */
export type LineMemo = Map<string, { readonly text: string; readonly facts: DraftFacts; readonly outcome: LineOutcome }>

function outcomeOf(line: DraftLine, draft: Draft, facts: DraftFacts, memo: LineMemo | undefined): LineOutcome {
  const text =
    memo === undefined
      ? ''
      : `${draft.kind} ${draft.departmentId ?? ''} ${draft.readWarnings.join(' ')} ${JSON.stringify(line)}`
  const known = memo?.get(line.id)
  if (known?.text === text && known.facts === facts) return known.outcome
  const coded = codedLine(line, facts)
  const worth =
    coded === null || dec(line.quantity).isZero() ? null : { net: lineNet(coded), effects: effectsOf(coded) }
  const outcome = { worth, missing: checkLine(line, draft, facts) }
  memo?.set(line.id, { text, facts, outcome })
  return outcome
}

/** True when a line is far enough along to be computed. */
function isPriced(line: DraftLine): line is DraftLine & { readonly unitPrice: DecimalText } {
  return line.unitPrice !== null
}

/** A draft line as the budget rules take it; null while it has no price, or its facts are not known. */
export function codedLine(
  line: DraftLine,
  facts: Pick<DraftFacts, 'budgetLines' | 'taxCodes' | 'perBase' | 'baseCurrency'>,
): CodedLine | null {
  const perBase = facts.perBase.get(line.currency)
  const taxRate = facts.taxCodes.get(line.taxCode)?.rate
  if (!isPriced(line) || perBase === undefined || taxRate === undefined) return null
  const split = { method: line.splitMethod, values: line.codings.map((c) => c.value) }
  const sound =
    line.codings.length > 0 && checkSplit(split, { quantity: line.quantity, net: draftNet(line) }).length === 0
  return {
    quantity: line.quantity,
    unitPrice: line.unitPrice,
    priceBase: line.priceBase,
    currency: line.currency,
    adjustments: adjustmentsOf(line),
    taxRate,
    split,
    perBase,
    baseCurrency: facts.baseCurrency,
    codings: sound
      ? line.codings.map((c) => ({
          budgetLineId: c.budgetLineId,
          reclaimable: facts.budgetLines.get(c.budgetLineId)?.reclaimable ?? '0',
        }))
      : [],
  }
}

/**
 * The whole verdict on a draft: sums, what each budget feels, who decides, and what is missing. The
 * same function runs in the page while typing and on the server under lock; only the second counts.
 */
export function computeDraft(draft: Draft, facts: DraftFacts, memo?: LineMemo): DraftVerdict {
  const lineNets = new Map<string, Money>()
  const lineMissing: Missing[] = []
  const effects = new Map<string, readonly Effect[]>()
  const byCurrency = new Map<string, { net: Money; tax: { category: string; rate: DecimalText } }[]>()
  for (const line of draft.lines) {
    const { worth, missing: lacking } = outcomeOf(line, draft, facts, memo)
    lineMissing.push(...lacking)
    if (worth === null) continue
    lineNets.set(line.id, worth.net)
    effects.set(line.id, worth.effects)
    const tax = facts.taxCodes.get(line.taxCode) ?? { category: 'S', rate: '0' }
    const others = byCurrency.get(line.currency)
    if (others === undefined) byCurrency.set(line.currency, [{ net: worth.net, tax }])
    else others.push({ net: worth.net, tax })
  }
  const all = [...effects.values()].flat()
  // What nobody pays for yet counts with its net, so that total and route do not mislead while it is written.
  const unpaid = draft.lines.flatMap((line) => {
    const net = lineNets.get(line.id)
    const perBase = facts.perBase.get(line.currency)
    return net === undefined || perBase === undefined || (effects.get(line.id) ?? []).length > 0
      ? []
      : [convert(net, perBase, facts.baseCurrency)]
  })
  const period = fiscalPeriod(draft.accountingDate ?? facts.today, facts.fiscalStartMonth)
  const budget = checkBudget(sumByBudgetLine(all), facts.budgetLines, period.period)
  const approvalAmount = sum([...all.map((e) => e.amount), ...unpaid], facts.baseCurrency)
  const subject = subjectOf(draft, facts, approvalAmount, budget)
  const route = makeRoute(subject, facts.policy, facts.people)
  const rules = rulesThatHold(facts.rules, draft, lineNets, {
    ...facts,
    isAgreed: (line) => hasAgreement(line, draft, facts),
  })
  const missing = findMissing(draft, facts, { budget, route, period, lines: lineMissing, rules, nets: lineNets })
  const sums = [...byCurrency].map(([currency, lines]) => ({ currency, ...documentSums(lines, currency) }))
  return { lineNets, sums, effects, approvalAmount, budget, period, subject, route, rules, missing }
}

function subjectOf(draft: Draft, facts: DraftFacts, amount: Money, budget: readonly BudgetOutcome[]): Subject {
  return {
    document: 'requisition',
    kind: draft.kind,
    amount,
    together: togetherWith(draft, facts, amount),
    ownerId: facts.ownerId,
    raisedById: facts.raisedById,
    // Sending it begins anew.
    ownedBy: [],
    departmentId: draft.departmentId ?? '',
    branch: facts.branch,
    own: chosenIn(draft, facts),
    codings: draft.lines.flatMap((line) =>
      line.codings.map((c) => ({
        budgetLineId: c.budgetLineId,
        account: facts.budgetLines.get(c.budgetLineId)?.account ?? '',
        project: facts.budgetLines.get(c.budgetLineId)?.project ?? null,
        category: line.categoryId,
        supplier: sortOfSupplier(line.supplierId, facts),
        currency: line.currency,
        hasAgreement: hasAgreement(line, draft, facts),
        holderId: facts.budgetLines.get(c.budgetLineId)?.holderId ?? null,
      })),
    ),
    overBudget: budget.some((b) => b.passedBy !== null),
  }
}

/** How the supplier of a line stands; one that the facts do not know is as good as none. */
function sortOfSupplier(supplierId: string | null, facts: DraftFacts): SupplierSort {
  const standing = supplierId === null ? undefined : facts.suppliers.get(supplierId)?.standing
  return standing === undefined ? 'undecided' : standing === 'proposed' ? 'proposed' : 'known'
}

/** What is chosen in the own fields that are asked for, on the whole or on a line. */
function chosenIn(draft: Draft, facts: DraftFacts): Record<string, readonly string[]> {
  const on = { kind: draft.kind, departmentId: draft.departmentId }
  return Object.fromEntries(
    facts.ownFields
      .filter((f) => f.type === 'choice')
      .map((f) => {
        const said =
          f.on === 'requisition'
            ? [isAsked(f, { ...on, categoryId: null }) ? draft.own[f.id] : '']
            : draft.lines.map((l) => (isAsked(f, { ...on, categoryId: l.categoryId }) ? l.own[f.id] : ''))
        return [f.id, [...new Set(said)].flatMap((v) => (v === undefined || v === '' ? [] : v)).sort()] as const
      })
      .filter(([, values]) => values.length > 0),
  )
}

/** The approval amount with those of its owner's requests of the policy's days that name a supplier of this one. */
function togetherWith(draft: Draft, facts: DraftFacts, amount: Money): Money {
  const named = new Set(draft.lines.flatMap((l) => l.supplierId ?? []))
  const others = facts.ownRecent.filter((r) => r.supplierIds.some((id) => named.has(id)))
  return sum([amount, ...others.map((r) => r.amount)], facts.baseCurrency)
}
