import { addBusinessDays, type Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import { lineNet, type Adjustment } from '#core/base/line-net'
import { compare, isNegative, subtract, zero, type Money } from '#core/base/money'
import { adjustmentsOfPart } from '#core/budget/effect'
import { packsOf, type Packs } from '#core/catalogue/pack'
import { priceFor, type PriceStep } from '#core/catalogue/price'
import { stepHint, type StepHint } from '#core/catalogue/step-hint'
import { freightOf } from './freight'
import type { Standing } from '#core/supplier/record'
import type { OrderTerms } from './order-terms'

/** A line that waits to be ordered, as far as who else may supply it is concerned. */
export interface LineToSource {
  readonly itemId: string
  /** What is open of it, of all that was asked for. */
  readonly quantity: DecimalText
  readonly requested: DecimalText
  readonly unit: string
  readonly currency: string
  readonly needBy: Day
  readonly unitPrice: DecimalText
  readonly priceBase: DecimalText
  /** Its price was written by hand instead of the catalogue's. */
  readonly isByHand: boolean
  /** What is taken off the whole of it. */
  readonly adjustments: readonly Adjustment[]
}

/** An item that is what a line asks for, as its supplier offers it. */
export interface OfferedItem {
  readonly itemId: string
  readonly standing: Standing
  readonly unit: string
  readonly priceBase: DecimalText
  readonly currency: string
  readonly leadDays: number
  readonly packSize: DecimalText | null
  readonly prices: readonly PriceStep[]
  /** What keeps people from ordering it; null where nothing does. */
  readonly stopped: string | null
  /** What its supplier asks of an order, in the line's currency; null where no rate leads there. */
  readonly terms: OrderTerms | null
}

export type OfferReason =
  | { readonly code: 'offer-without-price' }
  | { readonly code: 'offer-other-unit'; readonly unit: string; readonly asked: string }
  | { readonly code: 'offer-other-currency'; readonly currency: string; readonly asked: string }
  | { readonly code: 'offer-of-inactive'; readonly standing: Standing }
  | { readonly code: 'offer-stopped'; readonly text: string }

/** What an item would come to for a line. */
export interface Offer {
  readonly itemId: string
  readonly unitPrice: DecimalText | null
  readonly net: Money | null
  /** What its next price step would make of the quantity. */
  readonly next: StepHint['next']
  /** What its supplier asks for bringing it, were it ordered alone. */
  readonly freight: Money | null
  /** The value of goods that its supplier takes an order for, where this alone does not reach it. */
  readonly minimum: Money | null
  /** The first day on which it can be here, ordered today. */
  readonly arrives: Day
  readonly isLate: boolean
  /** Of what comes by the pack and does not come out even. */
  readonly packs: Packs | null
  /** Why the line cannot be ordered as this. */
  readonly reasons: readonly OfferReason[]
}

/** Nothing is promised over a longer time. */
const MOST_LEAD_DAYS = 400

/** Why a line is not ordered as an item: it is bought by the same measure, for the same money, from whom one may. */
export function offerReasons(
  line: Pick<LineToSource, 'quantity' | 'unit' | 'currency'>,
  item: Pick<OfferedItem, 'standing' | 'unit' | 'currency' | 'prices' | 'stopped'>,
  today: Day,
): OfferReason[] {
  return [
    ...(item.standing === 'active' ? [] : [{ code: 'offer-of-inactive' as const, standing: item.standing }]),
    ...(item.stopped === null ? [] : [{ code: 'offer-stopped' as const, text: item.stopped }]),
    ...(item.unit === line.unit ? [] : [{ code: 'offer-other-unit' as const, unit: item.unit, asked: line.unit }]),
    ...(item.currency === line.currency
      ? []
      : [{ code: 'offer-other-currency' as const, currency: item.currency, asked: line.currency }]),
    ...(priceFor(item.prices, line.quantity, today) === null ? [{ code: 'offer-without-price' as const }] : []),
  ]
}

/** What an item comes to for what is open of a line; the item that was asked for keeps what was agreed for the line. */
export function judgeOffer(line: LineToSource, item: OfferedItem, today: Day, holidays: ReadonlySet<Day>): Offer {
  const isAsked = item.itemId === line.itemId
  const kept = isAsked ? askedPrice(line, item.prices, today) : null
  const hint = stepHint(item, line.quantity, today)
  const net = kept?.net ?? hint?.net ?? null
  const arrives = item.leadDays <= 0 ? today : addBusinessDays(today, Math.min(item.leadDays, MOST_LEAD_DAYS), holidays)
  const packs = item.packSize === null ? null : packsOf(line.quantity, item.packSize)
  const minimum = item.terms?.minimum ?? null
  return {
    itemId: item.itemId,
    unitPrice: kept?.unitPrice ?? priceFor(item.prices, line.quantity, today)?.unitPrice ?? null,
    net,
    next: isAsked && line.isByHand ? null : (hint?.next ?? null),
    freight: item.terms === null ? null : freightOf(net, item.terms),
    minimum: net !== null && minimum !== null && compare(net, minimum) < 0 ? minimum : null,
    arrives,
    isLate: arrives > line.needBy,
    packs: packs === null || packs.isWhole ? null : packs,
    // What was asked for is ordered by the tray's own rules.
    reasons: isAsked ? [] : offerReasons(line, item, today),
  }
}

/** What is open of a line costs from whom it was asked: as a tray would order it. */
function askedPrice(
  line: LineToSource,
  prices: readonly PriceStep[],
  today: Day,
): { unitPrice: DecimalText; net: Money } {
  const step = line.isByHand ? null : priceFor(prices, line.quantity, today)
  const unitPrice = step?.unitPrice ?? line.unitPrice
  const adjustments = adjustmentsOfPart(line.adjustments, line.quantity, line.requested)
  return { unitPrice, net: lineNet({ ...line, unitPrice, adjustments }) }
}

/**
 * Offers as they are worth reading: those that can be taken first, the cheapest of them first, then the one that is
 * here first; what cannot be taken last.
 */
export const inOrder = <O extends Offer>(offers: readonly O[]): O[] =>
  [...offers].sort(
    (a, b) =>
      Number(a.reasons.length > 0) - Number(b.reasons.length > 0) ||
      (a.net === null || b.net === null || a.net.currency !== b.net.currency
        ? Number(a.net === null) - Number(b.net === null)
        : compare(a.net, b.net)) ||
      a.arrives.localeCompare(b.arrives),
  )

/**
 * The offers of others than whom a line was asked of that can be taken, as they are worth reading, and what the first
 * saves of the goods, never less than nothing; null where there is none.
 */
export function othersThan<O extends Offer>(
  offers: readonly O[],
  askedItemId: string,
): { readonly fitting: readonly O[]; readonly saves: Money | null } {
  const own = offers.find((o) => o.itemId === askedItemId)?.net ?? null
  const fitting = inOrder(offers.filter((o) => o.itemId !== askedItemId && o.reasons.length === 0))
  const net = fitting[0]?.net ?? null
  if (net === null) return { fitting, saves: null }
  const less = own === null ? zero(net.currency) : subtract(own, net)
  return { fitting, saves: isNegative(less) ? zero(net.currency) : less }
}
