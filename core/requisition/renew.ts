import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import { priceFor, type PriceStep } from '#core/catalogue/price'
import type { Draft, DraftLine } from './draft'

/** What is known now of what an old draft names. */
export interface RenewFacts {
  readonly today: Day
  /** Price steps of catalogue items that still have any. */
  readonly prices: ReadonlyMap<string, readonly PriceStep[]>
  /** The budget line of the year of today for one of any year; what is missing pays no more. */
  readonly budgetLines: ReadonlyMap<string, string>
  readonly newId: () => string
}

/**
 * A draft to begin from an earlier one: lines with ids of their own, at the catalogue's prices of today
 * where they had the catalogue's price then, paid from the budget lines of this year. What belongs to
 * that one time is blank: its day, its accounting date, why a budget was passed, which warnings were read.
 */
export function renewDraft(draft: Draft, facts: RenewFacts): Draft {
  return {
    ...draft,
    needBy: null,
    accountingDate: null,
    overBudgetReason: '',
    readWarnings: [],
    lines: draft.lines.map((line) => renewLine(line, facts)),
  }
}

function renewLine(line: DraftLine, facts: RenewFacts): DraftLine {
  const codings = line.codings.map((c) => ({ ...c, budgetLineId: facts.budgetLines.get(c.budgetLineId) ?? '' }))
  const paid = codings.every((c) => c.budgetLineId !== '') ? codings : []
  const steps = line.itemId === null ? undefined : facts.prices.get(line.itemId)
  const price: DecimalText | null =
    steps === undefined ? null : (priceFor(steps, line.quantity, facts.today)?.unitPrice ?? null)
  const byHand = line.itemId === null || (line.listPrice !== null && line.listPrice !== line.unitPrice)
  return {
    ...line,
    id: facts.newId(),
    needBy: null,
    codings: paid,
    listPrice: price,
    unitPrice: byHand || price === null ? line.unitPrice : price,
  }
}
