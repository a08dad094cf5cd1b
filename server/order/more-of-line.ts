import { OUTWARD } from '#shared/words/ways'
import { dec, type DecimalText } from '#core/base/decimal'
import type { Adjustment } from '#core/base/line-net'
import { roundMoney } from '#core/base/money'

/** What an order says of a line below its description: more about it, what is taken off, what the askers wrote. */
export function moreOf(
  line: {
    readonly secondDescription: string
    readonly notes: readonly string[]
    readonly adjustments: readonly Adjustment[]
  },
  currency: string,
): string[] {
  const off = line.adjustments.flatMap((a) =>
    a.percent !== undefined
      ? [`less ${OUTWARD.decimal(a.percent)} %`]
      : dec(a.amount ?? '0').isZero()
        ? []
        : [`less ${OUTWARD.amount(roundMoney(dec(a.amount ?? '0'), currency))}`],
  )
  return [line.secondDescription, ...off, ...line.notes].filter((t) => t.trim() !== '')
}

/** The adjustments of an order line as it is kept. */
export function keptAdjustments(line: {
  readonly discountPercent: DecimalText | null
  readonly discountAmount: DecimalText | null
}): Adjustment[] {
  return [
    ...(line.discountPercent === null ? [] : [{ kind: 'allowance' as const, percent: line.discountPercent }]),
    ...(line.discountAmount === null ? [] : [{ kind: 'allowance' as const, amount: line.discountAmount }]),
  ]
}
