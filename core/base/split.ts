import { Decimal, dec, type DecimalText } from './decimal'
import { minorUnits } from './currency'
import { roundMoney, type Money } from './money'

/** How a line is divided over its codings. */
export type SplitMethod = 'percent' | 'share' | 'amount' | 'quantity'

export type SplitReason =
  | { readonly code: 'split-empty' }
  | { readonly code: 'split-value-missing'; readonly at: number }
  | { readonly code: 'split-negative'; readonly at: number }
  | { readonly code: 'split-not-hundred'; readonly sum: DecimalText }
  | { readonly code: 'split-not-quantity'; readonly sum: DecimalText; readonly quantity: DecimalText }

export interface Split {
  readonly method: SplitMethod
  /** One for each coding; null for equal shares and for the coding that takes what is left by amount. */
  readonly values: readonly (DecimalText | null)[]
}

/** Says what is wrong with a split of a line of `quantity`; empty when it is fine. */
export function checkSplit(split: Split, quantity: DecimalText): SplitReason[] {
  const { method, values } = split
  if (values.length === 0) return [{ code: 'split-empty' }]
  if (values.length === 1 || method === 'share') return []
  const reasons: SplitReason[] = []
  values.forEach((v, at) => {
    const last = at === values.length - 1
    if (v === null) {
      if (!(method === 'amount' && last)) reasons.push({ code: 'split-value-missing', at })
    } else if (dec(v).isNegative()) reasons.push({ code: 'split-negative', at })
  })
  if (reasons.length > 0) return reasons
  const total = values.reduce((s, v) => s.plus(dec(v ?? '0')), new Decimal(0))
  if (method === 'percent' && !total.eq(100)) reasons.push({ code: 'split-not-hundred', sum: total.toFixed() })
  if (method === 'quantity' && !total.eq(dec(quantity)))
    reasons.push({ code: 'split-not-quantity', sum: total.toFixed(), quantity })
  return reasons
}

/**
 * The values of a split while it is written: the last coding has what the others leave of 100 percent
 * or of the line's quantity (negative when they take too much), and nothing by shares or by amount.
 */
export function withRemainder(
  method: SplitMethod,
  values: readonly (DecimalText | null)[],
  quantity: DecimalText,
): (DecimalText | null)[] {
  if (method === 'share' || values.length < 2) return values.map(() => null)
  const others = values.slice(0, -1)
  if (method === 'amount') return [...others, null]
  const left = others.reduce((s, v) => s.minus(dec(v ?? '0')), method === 'percent' ? new Decimal(100) : dec(quantity))
  return [...others, left.toFixed()]
}

/**
 * Divides `total` by weights so that the parts always add up to it: the largest-remainder method,
 * ties to the earlier part. A total of the other sign gives mirror images. Common practice, no source.
 */
export function divide(total: Money, weights: readonly Decimal[]): Money[] {
  const scale = new Decimal(10).pow(minorUnits(total.currency))
  const units = dec(total.amount).times(scale)
  const sign = units.isNegative() ? -1 : 1
  const all = weights.reduce((s, w) => s.plus(w), new Decimal(0))
  const whole = weights.map((w) => (all.isZero() ? new Decimal(0) : units.abs().times(w).dividedBy(all)))
  const floors = whole.map((w) => w.floor())
  let left = units
    .abs()
    .minus(floors.reduce((s, f) => s.plus(f), new Decimal(0)))
    .toNumber()
  const order = whole
    .map((w, i) => ({ i, rest: w.minus(floors[i] ?? 0) }))
    .sort((a, b) => b.rest.comparedTo(a.rest) || a.i - b.i)
  const extra = new Set<number>()
  for (const { i } of order) {
    if (left <= 0) break
    extra.add(i)
    left -= 1
  }
  return floors.map((f, i) =>
    roundMoney(
      f
        .plus(extra.has(i) ? 1 : 0)
        .times(sign)
        .dividedBy(scale),
      total.currency,
    ),
  )
}

/**
 * The share of each coding of a line's amount. By amount, the last coding takes what is left, down
 * to 0 and never of the other sign. `part` says that `total` is only a part of the line (whose whole
 * amount is `whole`): then amounts and quantities are weights.
 */
export function splitAmount(total: Money, split: Split, part?: { readonly whole: Money }): Money[] {
  const { method, values } = split
  if (values.length === 1) return [total]
  if (method === 'share')
    return divide(
      total,
      values.map(() => new Decimal(1)),
    )
  if (method !== 'amount')
    return divide(
      total,
      values.map((v) => dec(v ?? '0')),
    )
  const whole = byAmount(part?.whole ?? total, values)
  return part === undefined
    ? whole
    : divide(
        total,
        whole.map((m) => dec(m.amount).abs()),
      )
}

function byAmount(total: Money, values: readonly (DecimalText | null)[]): Money[] {
  const sign = total.amount.startsWith('-') ? -1 : 1
  let left = dec(total.amount).abs()
  return values.map((v, i) => {
    const take = i === values.length - 1 ? left : Decimal.min(left, dec(v ?? '0').abs())
    left = left.minus(take)
    return roundMoney(take.times(sign), total.currency)
  })
}
