import { figuresFor } from '#core/budget/available'
import { sum, type Money } from '#core/base/money'
import type { DraftVerdict } from '#core/requisition/compute'
import type { DraftFacts } from '#core/requisition/draft-facts'
import { feltTax } from '#core/requisition/felt-tax'
import { sayNote, saySeat } from '#shared/words/approval'
import { sayFeltTax } from '#shared/words/requisition'
import type { Ways } from '#shared/words/ways'
import type { RouteEntry } from '~/components/base/RouteList.vue'
import type { EffectView } from '~/components/budget/BudgetEffects.vue'

/** What Rekko worked out of a requisition while it is written: its sum, what it does to budgets, who decides. */
export interface Margin {
  readonly amount: Money
  readonly tax: string
  /** What is priced in other currencies, and at which rate. */
  readonly foreign: readonly string[]
  readonly effects: readonly EffectView[]
  readonly entries: readonly RouteEntry[]
  readonly notes: readonly string[]
  readonly isHeld: boolean
}

/** `of`: how whoever raises is spoken of, by name or as “you”. */
export function marginOf(verdict: DraftVerdict, facts: DraftFacts, of: string, ways: Ways): Margin {
  const base = facts.baseCurrency
  const nameOf = (id: string) => facts.people.people.get(id)?.name ?? ''
  const perBase = (c: string) => facts.perBase.get(c)
  const taxes = verdict.sums.map((s) => (s.currency === base ? ways.amount(s.tax) : ways.money(s.tax)))
  const foreign = verdict.sums.flatMap((s) => {
    if (s.currency === base) return []
    const rate = perBase(s.currency)
    const said = rate === undefined ? 'no rate' : ways.rate(rate, s.currency, base)
    return [`${ways.money(s.net)} without tax, at ${said}`]
  })
  const effects = verdict.budget.flatMap((b): EffectView[] => {
    const line = facts.budgetLines.get(b.budgetLineId)
    if (line === undefined) return []
    const f = figuresFor(line, verdict.period.period)
    return [
      {
        budgetLineId: b.budgetLineId,
        name: b.name,
        given: sum([f.budgeted, f.adjustments], base),
        spent: f.spent,
        committed: f.committed,
        reserved: f.reserved,
        effect: b.effect,
        before: b.before,
        after: b.after,
        passed: b.passedBy !== null,
      },
    ]
  })
  const entries = verdict.route.steps.flatMap((step, i) =>
    step.seats.map((seat): RouteEntry => {
      const lines = seat.why.code === 'budget-holder' ? seat.why.budgetLineIds : []
      return {
        key: `${i} ${seat.actorId}`,
        name: nameOf(seat.actorId),
        state: 'ahead',
        you: false,
        why: saySeat(
          seat.why,
          {
            of,
            forName: seat.forId === null ? null : nameOf(seat.forId),
            lines: lines.map((b) => facts.budgetLines.get(b)?.name ?? ''),
          },
          ways,
        ),
      }
    }),
  )
  return {
    amount: verdict.approvalAmount,
    tax:
      verdict.sums.length === 0
        ? ''
        : sayFeltTax(feltTax(verdict.sums, verdict.approvalAmount, perBase), taxes.join(', '), ways),
    foreign,
    effects,
    entries,
    notes: [...new Set(verdict.route.notes.flatMap((n) => sayNote(n, nameOf, ways) ?? []))],
    isHeld: verdict.route.held !== null,
  }
}
