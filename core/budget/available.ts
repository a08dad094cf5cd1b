import { add, compare, negate, subtract, sum, zero, type Money } from '#core/base/money'

/** What stands in one period of a budget line. */
export interface PeriodFigures {
  readonly period: number
  readonly budgeted: Money
  readonly adjustments: Money
  readonly reserved: Money
  readonly committed: Money
  readonly spent: Money
}

/** What a line does when it is passed. */
export type BudgetControl = 'tells' | 'asks' | 'refuses'
/** Over what time available is checked. */
export type BudgetSpan = 'year' | 'to date' | 'period'

export interface BudgetLineFacts {
  readonly id: string
  readonly name: string
  readonly code: string
  readonly control: BudgetControl
  /** By how much available may fall below zero. */
  readonly mayFallBelow: Money
  readonly span: BudgetSpan
  readonly periods: readonly PeriodFigures[]
}

export interface BudgetFigures extends Omit<PeriodFigures, 'period'> {
  readonly available: Money
}

/** What of a budget line its figures are added up from. */
export type SpannedLine = Pick<BudgetLineFacts, 'periods' | 'span' | 'mayFallBelow'>

/** Adds a line's periods up over the span that it is checked for, seen from a document's period. */
export function figuresFor(line: SpannedLine, period: number, span: BudgetSpan = line.span): BudgetFigures {
  const currency = line.mayFallBelow.currency
  const inside = line.periods.filter(
    (p) => span === 'year' || (span === 'period' ? p.period === period : p.period <= period),
  )
  const total = (pick: (p: PeriodFigures) => Money) => sum(inside.map(pick), currency)
  const f = {
    budgeted: total((p) => p.budgeted),
    adjustments: total((p) => p.adjustments),
    reserved: total((p) => p.reserved),
    committed: total((p) => p.committed),
    spent: total((p) => p.spent),
  }
  const given = add(f.budgeted, f.adjustments)
  return { ...f, available: subtract(subtract(subtract(given, f.reserved), f.committed), f.spent) }
}

/** What a document would do to one budget line. */
export interface BudgetOutcome {
  readonly budgetLineId: string
  readonly name: string
  readonly control: BudgetControl
  readonly before: Money
  readonly after: Money
  readonly effect: Money
  /** By how much the line is passed, beyond what it allows; null where it is not. */
  readonly passedBy: Money | null
}

/**
 * Checks all that a document adds, together, line by line. Only a line to which money is added can be
 * passed: what lowers a line or leaves it as it is, is never held against it.
 */
export function checkBudget(
  effects: readonly { readonly budgetLineId: string; readonly amount: Money }[],
  lines: ReadonlyMap<string, BudgetLineFacts>,
  period: number,
): BudgetOutcome[] {
  return effects.flatMap((effect) => {
    const line = lines.get(effect.budgetLineId)
    if (line === undefined) return []
    const before = figuresFor(line, period).available
    const after = subtract(before, effect.amount)
    const nothing = zero(after.currency)
    const floor = negate(line.mayFallBelow)
    const passed = compare(effect.amount, nothing) > 0 && compare(after, floor) < 0
    return [
      {
        budgetLineId: line.id,
        name: line.name,
        control: line.control,
        before,
        after,
        effect: effect.amount,
        passedBy: passed ? subtract(floor, after) : null,
      },
    ]
  })
}
