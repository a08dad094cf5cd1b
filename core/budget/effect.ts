import { HUNDRED, dec, type DecimalText } from '#core/base/decimal'
import { add, convert, roundMoney, sum, zero, type Money } from '#core/base/money'
import { lineNet, type Adjustment, type PricedLine } from '#core/base/line-net'
import { splitAmount, type Split } from '#core/base/split'

/** One coding of a line: the budget line that pays, and what its department can reclaim of tax (percent). */
export interface Coding {
  readonly budgetLineId: string
  readonly reclaimable: DecimalText
}

/** What a budget feels of a line is worked out from this. */
export interface CodedLine extends PricedLine {
  readonly taxRate: DecimalText
  readonly split: Split
  readonly codings: readonly Coding[]
  /** Units of its currency for one of the base, kept with the document. */
  readonly perBase: DecimalText
  readonly baseCurrency: string
}

export interface Effect {
  readonly budgetLineId: string
  readonly amount: Money
}

/**
 * What `quantity` of a line is worth to each of its codings, in the base currency: the share of the
 * net, and the tax on it that the department cannot reclaim, rounded coding by coding in the line's
 * currency, then converted and rounded. A part of a line is worth what its remaining quantity is
 * worth, rounded and split as a whole, so that parts leave nothing behind.
 */
export function effectsOf(line: CodedLine, quantity: DecimalText = line.quantity): Effect[] {
  if (line.codings.length === 0) return []
  const isPart = quantity !== line.quantity
  const net = lineNet(isPart ? partOf(line, quantity) : line)
  const shares = splitAmount(net, line.split, isPart ? { whole: lineNet(line) } : undefined)
  return line.codings.map((coding, i) => {
    const share = shares[i] ?? zero(line.currency)
    const kept = HUNDRED.minus(dec(coding.reclaimable)).percent()
    const tax = roundMoney(dec(share.amount).times(dec(line.taxRate)).percent().times(kept), line.currency)
    return { budgetLineId: coding.budgetLineId, amount: convert(add(share, tax), line.perBase, line.baseCurrency) }
  })
}

function partOf(line: CodedLine, quantity: DecimalText): PricedLine {
  return { ...line, quantity, adjustments: adjustmentsOfPart(line.adjustments ?? [], quantity, line.quantity) }
}

/** What is taken off or put on `quantity` of a line of `whole`: a percentage stays, an amount follows the quantity. */
export function adjustmentsOfPart(
  adjustments: readonly Adjustment[],
  quantity: DecimalText,
  whole: DecimalText,
): Adjustment[] {
  if (quantity === whole) return [...adjustments]
  const of = dec(whole)
  const follow = (amount: DecimalText) =>
    of.isZero() ? '0' : dec(amount).times(dec(quantity)).dividedBy(of).toPlaces(20).toFixed()
  return adjustments.map((a) => (a.amount === undefined ? a : { ...a, amount: follow(a.amount) }))
}

/** Effects added up by budget line, in the order in which the lines first appear. */
export function sumByBudgetLine(effects: readonly Effect[]): Effect[] {
  const amounts = new Map<string, Money[]>()
  for (const e of effects) {
    const before = amounts.get(e.budgetLineId)
    if (before === undefined) amounts.set(e.budgetLineId, [e.amount])
    else before.push(e.amount)
  }
  return [...amounts].map(([budgetLineId, of]) => ({ budgetLineId, amount: sum(of, of[0]?.currency ?? '') }))
}
