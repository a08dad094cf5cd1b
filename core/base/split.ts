import { Decimal, HUNDRED, NOTHING, ONE, dec, type DecimalText } from './decimal'
import { minorUnits } from './currency'
import { roundMoney, sum, type Money } from './money'

/** How a line is divided over its codings. */
export type SplitMethod = 'percent' | 'share' | 'amount' | 'quantity'

export type SplitReason =
  | { readonly code: 'split-empty' }
  | { readonly code: 'split-value-missing'; readonly at: number }
  | { readonly code: 'split-negative'; readonly at: number }
  | { readonly code: 'split-not-hundred'; readonly sum: DecimalText }
  | { readonly code: 'split-not-quantity'; readonly sum: DecimalText; readonly quantity: DecimalText }
  /** More than the line is worth is given away, or what the last is given is not what is left. */
  | { readonly code: 'split-not-amount'; readonly sum: Money; readonly whole: Money }
  /** Quantities that are all 0 say nothing of who pays. */
  | { readonly code: 'split-nothing' }

export interface Split {
  readonly method: SplitMethod
  /** One for each coding; null for equal shares and for the coding that takes what is left by amount. */
  readonly values: readonly (DecimalText | null)[]
}

/** What of a line its split has to add up to; its net is null while it has none. */
export interface SplitOf {
  readonly quantity: DecimalText
  readonly net: Money | null
}

/** Says what is wrong with a split of a line; empty when it is fine. A lone coding pays for all of it. */
export function checkSplit(split: Split, { quantity, net }: SplitOf): SplitReason[] {
  const { method, values } = split
  if (values.length === 0) return [{ code: 'split-empty' }]
  if (method === 'share' || (values.length === 1 && values[0] === null)) return []
  const reasons: SplitReason[] = []
  values.forEach((v, at) => {
    const last = at === values.length - 1
    if (v === null) {
      if (!(method === 'amount' && last)) reasons.push({ code: 'split-value-missing', at })
    } else if (dec(v).isNegative()) reasons.push({ code: 'split-negative', at })
  })
  if (reasons.length > 0) return reasons
  const total = values.reduce((s, v) => s.plus(dec(v ?? '0')), NOTHING)
  if (method === 'percent' && !total.eq(HUNDRED)) reasons.push({ code: 'split-not-hundred', sum: total.toFixed() })
  if (method === 'quantity' && !total.eq(dec(quantity)))
    reasons.push({ code: 'split-not-quantity', sum: total.toFixed(), quantity })
  if (method === 'quantity' && total.isZero()) reasons.push({ code: 'split-nothing' })
  if (method === 'amount' && net !== null) reasons.push(...checkAmounts(values, net))
  return reasons
}

/** Amounts are rounded one by one; the last is left what the others leave, and no less than nothing. */
function checkAmounts(values: readonly (DecimalText | null)[], net: Money): SplitReason[] {
  const given = values.flatMap((v) => (v === null ? [] : [roundMoney(dec(v), net.currency)]))
  const total = sum(given, net.currency)
  const whole = dec(net.amount).abs()
  const isWrong = given.length === values.length ? !dec(total.amount).eq(whole) : dec(total.amount).gt(whole)
  return isWrong ? [{ code: 'split-not-amount', sum: total, whole: net }] : []
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
  const left = others.reduce((s, v) => s.minus(dec(v ?? '0')), method === 'percent' ? HUNDRED : dec(quantity))
  return [...others, left.toFixed()]
}

/**
 * Divides `total` by weights so that the parts always add up to it: the largest-remainder method,
 * ties to the earlier part, remainders compared exactly, as fractions. A total of the other sign gives mirror
 * images. Throws where something is to be divided by weights that are all 0. Common practice, no source.
 */
export function divide(total: Money, weights: readonly Decimal[]): Money[] {
  const digits = minorUnits(total.currency)
  const units = dec(total.amount).unitsAt(digits)
  const size = units < 0n ? -units : units
  const scale = Math.max(0, ...weights.map((w) => w.places()))
  const parts = weights.map((w) => w.unitsAt(scale))
  const all = parts.reduce((s, w) => s + w, 0n)
  if (all === 0n && units !== 0n) throw new RangeError('weights that are all 0 divide nothing')
  // Units times weight over the sum of weights: whole units, and what remains of the same denominator.
  const shares = parts.map((w, i) => ({
    i,
    whole: all === 0n ? 0n : (size * w) / all,
    rest: all === 0n ? 0n : (size * w) % all,
  }))
  const left = Number(size - shares.reduce((s, { whole }) => s + whole, 0n))
  const order = [...shares].sort((a, b) => (a.rest < b.rest ? 1 : a.rest > b.rest ? -1 : a.i - b.i))
  const extra = new Set(order.slice(0, left).map(({ i }) => i))
  return shares.map(({ i, whole }) => {
    const share = whole + (extra.has(i) ? 1n : 0n)
    return roundMoney(Decimal.ofUnits(units < 0n ? -share : share, digits), total.currency)
  })
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
      values.map(() => ONE),
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
  const isCredit = total.amount.startsWith('-')
  let left = dec(total.amount).abs()
  return values.map((v, i) => {
    // What is sound never takes more than is left; while it is written it may.
    const given = dec(roundMoney(dec(v ?? '0').abs(), total.currency).amount)
    const take = i === values.length - 1 ? left : Decimal.min(left, given)
    left = left.minus(take)
    return roundMoney(isCredit ? take.negated() : take, total.currency)
  })
}
