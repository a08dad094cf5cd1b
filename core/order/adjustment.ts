import { minorUnits } from '../base/currency'
import { HUNDRED, dec, type DecimalText } from '../base/decimal'
import { documentSums, type TaxKey } from '../base/document-sums'
import { add, isNegative, isZero, moneyOf, roundMoney, subtract, zero, type Money } from '../base/money'
import { divideByWorth, layFreight, overTax } from './freight'

/** What is taken off the whole of an order, or put on it, besides freight, and what for. */
export interface OrderAdjustment {
  readonly kind: 'discount' | 'charge'
  readonly of: 'percent' | 'amount'
  /** More than 0: a percentage of the goods, or an amount in the order's currency. */
  readonly value: DecimalText
  readonly name: string
}

/** How many an order may have, and how long the name of one may be. */
export const MOST_ADJUSTMENTS = 5
export const LONGEST_ADJUSTMENT = 80

/** What is wrong with an adjustment, by its place from 0. */
export type AdjustmentReason =
  | { readonly code: 'adjustment-unnamed' | 'adjustment-nothing' | 'adjustment-above-all'; readonly at: number }
  /** Another of its kind is called the same. */
  | { readonly code: 'adjustment-twice'; readonly at: number; readonly name: string }
  | { readonly code: 'adjustment-too-fine'; readonly at: number; readonly currency: string }

/** What is wrong with the adjustments of an order: each says what for, and is something, in whole minor units. */
export function adjustmentReasons(adjustments: readonly OrderAdjustment[], currency: string): AdjustmentReason[] {
  return adjustments.flatMap(({ kind, of, value, name }, at): AdjustmentReason[] => [
    ...(name.trim() === '' ? [{ code: 'adjustment-unnamed' as const, at }] : []),
    ...(adjustments.slice(0, at).some((a) => a.kind === kind && a.name.trim() === name.trim())
      ? [{ code: 'adjustment-twice' as const, at, name: name.trim() }]
      : []),
    ...(dec(value).isPositive() ? [] : [{ code: 'adjustment-nothing' as const, at }]),
    ...(of === 'percent' && kind === 'discount' && dec(value).gt(HUNDRED)
      ? [{ code: 'adjustment-above-all' as const, at }]
      : []),
    ...(of === 'amount' && dec(value).places() > minorUnits(currency)
      ? [{ code: 'adjustment-too-fine' as const, at, currency }]
      : []),
  ])
}

/** Whether nothing else is taken off, or put on. */
export const areAlike = (a: readonly OrderAdjustment[], b: readonly OrderAdjustment[]): boolean =>
  a.length === b.length &&
  a.every((x, i) => {
    const y = b[i]
    return x.kind === y?.kind && x.of === y.of && x.name === y.name && dec(x.value).eq(dec(y.value))
  })

/** As it is kept: without spaces around its name, and zeros behind its value. */
export const tidyAdjustments = (adjustments: readonly OrderAdjustment[]): OrderAdjustment[] =>
  adjustments.map(({ kind, of, value, name }) => ({ kind, of, value: dec(value).toFixed(), name: name.trim() }))

/** An adjustment, or as much of it as carries one tax, as it stands on an order. */
export interface LaidAdjustment {
  readonly kind: OrderAdjustment['kind']
  readonly name: string
  /** Of a percentage, which it is of what. */
  readonly percent: DecimalText | null
  readonly base: Money
  /** Never less than nothing: its kind says which way it goes. */
  readonly amount: Money
  readonly tax: TaxKey
  /** What of it each line bears, in their order; they add up to it. */
  readonly shares: readonly Money[]
}

interface TaxedNet {
  readonly net: Money
  readonly tax: TaxKey
}

/**
 * Lays what is taken off an order, or put on it, on its lines. Each carries one tax: a percentage is, tax by tax, of
 * the lines taxed so; an amount taken off is divided over the taxes by their lines; one put on carries the tax of the
 * dearest line, as freight does (common practice, no source). Within a tax the lines bear it by their net. What comes
 * to nothing is left out. Source: EN 16931-1, BG-20 and BG-21; rules of calculation, money, and what a budget feels.
 */
export function layAdjustments(
  adjustments: readonly OrderAdjustment[],
  lines: readonly TaxedNet[],
  currency: string,
): LaidAdjustment[] {
  if (lines.length === 0) return []
  const { byTax, lines: all } = documentSums(lines, currency)
  const taxes = byTax.map(({ category, rate, taxable: goods }) => ({ tax: { category, rate }, goods }))
  return adjustments
    .flatMap(({ kind, of, value, name }): LaidAdjustment[] => {
      const lay = (tax: TaxKey, amount: Money, base: Money): LaidAdjustment => ({
        ...{ kind, name, percent: of === 'percent' ? value : null, base, amount, tax },
        shares: overTax(amount, tax, lines),
      })
      if (of === 'percent')
        return taxes.map(({ tax, goods }) => {
          const base = isNegative(goods) ? zero(currency) : goods
          return lay(tax, roundMoney(dec(base.amount).times(dec(value)).percent(), currency), base)
        })
      const amount = moneyOf(value, currency)
      if (kind === 'discount')
        return divideByWorth(
          amount,
          taxes.map((t) => t.goods),
        ).flatMap((part, i) => {
          const group = taxes[i]
          return group === undefined ? [] : [lay(group.tax, part, all)]
        })
      const laid = layFreight(amount, lines)
      return laid === null ? [] : [lay(laid.tax, amount, all)]
    })
    .filter((l) => !isZero(l.amount))
}

/** What of a blanket order's adjustments each call-off has too: amounts were agreed once, with the blanket order. */
export const ofEachPart = (adjustments: readonly OrderAdjustment[]): OrderAdjustment[] =>
  adjustments.filter((a) => a.of === 'percent')

/** What each line bears of all adjustments together: what is put on, less what is taken off. */
export const borneOf = (laid: readonly LaidAdjustment[], lines: number, currency: string): Money[] =>
  Array.from({ length: lines }, (_, i) =>
    laid.reduce((borne, { kind, shares }) => {
      const share = shares[i] ?? zero(currency)
      return kind === 'discount' ? subtract(borne, share) : add(borne, share)
    }, zero(currency)),
  )
