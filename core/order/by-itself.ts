import { covers, convert, moneyOf, type Money } from '#core/base/money'
import { dec, type DecimalText } from '#core/base/decimal'
import type { OpenLine } from './consolidate'
import type { LeftReason, ProposalOptions, ProposedOrder } from './propose'

/** When orders are made by themselves: as soon as a request is approved, or every business day at an hour. */
export type OrderingTime = { readonly each: 'approval' } | { readonly each: 'day'; readonly hour: number }

/** At which prices: an agreement's alone, the catalogue's too, or any, an asker's estimate among them. */
export const ORDERING_PRICES = ['agreed', 'catalogue', 'any'] as const
export type OrderingPrice = (typeof ORDERING_PRICES)[number]

/** What a rule of ordering by itself covers, and how it puts together what it covers. Nothing named is anything. */
export interface OrderingForm extends ProposalOptions {
  readonly kinds: readonly string[]
  /** These and all below them. */
  readonly departmentIds: readonly string[]
  /** These and all below them. */
  readonly categoryIds: readonly string[]
  readonly supplierIds: readonly string[]
  readonly price: OrderingPrice
  /** The most that an order may come to, without tax, with freight, in the base currency; null: as its buyer may. */
  readonly upTo: DecimalText | null
  readonly time: OrderingTime
}

/** What of an approved line decides on whether a rule covers it. */
export interface CoveredLine extends OpenLine {
  readonly kind: string
  /** Its department and all above it. */
  readonly branch: readonly string[]
  /** Its category and all above it; none where it has no category. */
  readonly categories: readonly string[]
}

/** Whether a rule covers a line: everything that it names has to fit. Source: ours. */
export function isCovered(line: CoveredLine, form: OrderingForm): boolean {
  const fits = (named: readonly string[], of: readonly string[]) =>
    named.length === 0 || named.some((n) => of.includes(n))
  return (
    fits(form.kinds, [line.kind]) &&
    fits(form.departmentIds, line.branch) &&
    fits(form.categoryIds, line.categories) &&
    fits(form.supplierIds, line.supplierId === null ? [] : [line.supplierId]) &&
    hasPrice(line, form.price)
  )
}

function hasPrice(line: OpenLine, price: OrderingPrice): boolean {
  switch (price) {
    case 'agreed':
      return line.agreementId !== null && !line.isByHand
    case 'catalogue':
      return line.itemId !== null && !line.isByHand
    case 'any':
      return true
  }
}

/** Why a line that a rule covers is not ordered. */
export type ItselfReason =
  | LeftReason
  | { readonly code: 'above-sum'; readonly net: Money; readonly most: Money }
  | { readonly code: 'below-minimum'; readonly goods: Money; readonly minimum: Money }
  /** Dearer than its agreement says, for its price base. */
  | { readonly code: 'above-agreed'; readonly description: string; readonly price: Money; readonly agreed: Money }
  | { readonly code: 'above-limit'; readonly net: Money; readonly limit: Money | null }
  | { readonly code: 'own-need' }
  /** Issuing it was refused, in the words of whoever issues. */
  | { readonly code: 'refused'; readonly why: string }

export interface ItselfFacts {
  /** The most that its buyer may order alone, in the base currency; null: nothing. */
  readonly limit: Money | null
  readonly baseCurrency: string
  readonly perBase: ReadonlyMap<string, DecimalText>
  /** What an agreement says that an item costs for its price base, in the agreement's currency; null: nothing. */
  readonly agreedPrice: (agreementId: string, itemId: string) => DecimalText | null
}

/**
 * Why a proposed order is not made by itself; null: it is. What issuing asks besides (budgets, what was approved, the
 * buyer's limit, ceilings) is asked there. Source: ours.
 */
export function whyNotMade(order: ProposedOrder, form: OrderingForm, facts: ItselfFacts): ItselfReason | null {
  const { worth, currency, belowMinimum } = order
  if (belowMinimum !== null) return { code: 'below-minimum', goods: worth.goods, minimum: belowMinimum }
  const large = whyTooLarge(order, form, facts)
  if (large !== null) return large
  const agreementId = order.parts[0]?.agreementId ?? null
  if (agreementId === null || form.price !== 'agreed') return null
  for (const line of worth.lines) {
    const agreed = line.itemId === null ? null : facts.agreedPrice(agreementId, line.itemId)
    if (agreed !== null && dec(line.unitPrice).gt(dec(agreed)))
      return {
        code: 'above-agreed',
        description: line.description,
        price: { amount: line.unitPrice, currency },
        agreed: { amount: agreed, currency },
      }
  }
  return null
}

/**
 * Why a proposed order is more than may be ordered by itself; null: it is not. A request that is so alone is left
 * before the others are put together, since it would hold them up.
 */
export function whyTooLarge(
  { worth, currency }: ProposedOrder,
  { upTo }: OrderingForm,
  { limit, perBase, baseCurrency }: Pick<ItselfFacts, 'limit' | 'perBase' | 'baseCurrency'>,
): ItselfReason | null {
  const net = convert(worth.net, perBase.get(currency) ?? '1', baseCurrency)
  const most = upTo === null ? null : moneyOf(upTo, baseCurrency)
  if (most !== null && !covers(most, net)) return { code: 'above-sum', net, most }
  return covers(limit, net) ? null : { code: 'above-limit', net, limit }
}
