import { dec, type DecimalText } from '#core/base/decimal'
import { compare, covers, convert, roundMoney, type Money } from '#core/base/money'
import { verdict, type Verdict } from '#core/base/verdict'
import type { ChannelName } from './channel'
import { ORDER_MOVES, type OrderState } from './moves'

/** Who could issue an order that its buyer may not. */
export interface MayIssue {
  readonly personId: string
  readonly name: string
}

export type IssueReason =
  | { readonly code: 'order-state'; readonly stops: true; readonly state: OrderState }
  | {
      readonly code: 'order-empty' | 'no-supplier' | 'no-ship-to' | 'own-need-alone' | 'currency-differs'
      readonly stops: true
    }
  | { readonly code: 'supplier-blocked'; readonly stops: true; readonly supplier: string }
  | {
      readonly code: 'supplier-unreachable'
      readonly stops: true
      readonly supplier: string
      readonly channel: ChannelName
    }
  | {
      readonly code: 'above-ordering-limit'
      readonly stops: true
      readonly amount: Money
      readonly limit: Money | null
      readonly who: readonly MayIssue[]
    }
  | {
      readonly code: 'above-approved'
      readonly stops: true
      readonly description: string
      readonly approved: Money
      readonly ordered: Money
    }
  | { readonly code: 'ship-to-differs'; readonly stops: true }
  | { readonly code: 'no-rate'; readonly stops: true; readonly currency: string }

export interface IssueFacts {
  readonly state: OrderState
  readonly buyerId: string
  readonly orderingLimit: Money | null
  /** Other people whose ordering limit covers the order, lowest limit first. */
  readonly mayIssue: readonly MayIssue[]
  readonly supplier: {
    readonly name: string
    /** How orders reach it, and whether that channel has what it needs. */
    readonly channel: ChannelName
    readonly reachable: boolean
    readonly blocked: boolean
    readonly currency: string
  } | null
  readonly hasShipTo: boolean
  readonly currency: string
  readonly net: Money
  /** The factor into the base currency; null where no rate is known. */
  readonly toBase: DecimalText | null
  readonly baseCurrency: string
  readonly lines: readonly { readonly description: string; readonly ordered: Money; readonly approved: Money }[]
  /** The owners and raisers of the requisitions served. */
  readonly needOf: readonly string[]
  readonly sameShipTo: boolean
  /** How far an order line may pass what was approved for it: within both. */
  readonly tolerance: { readonly percent: DecimalText; readonly amount: Money }
}

/** Whether an order may be issued by this buyer, with everything that stands in its way. */
export function decideIssue(f: IssueFacts): Verdict<'issued', IssueReason> {
  const reasons: IssueReason[] = []
  const from: readonly OrderState[] = ORDER_MOVES.issue.from
  if (!from.includes(f.state)) reasons.push({ code: 'order-state', stops: true, state: f.state })
  if (f.lines.length === 0) reasons.push({ code: 'order-empty', stops: true })
  if (!f.hasShipTo) reasons.push({ code: 'no-ship-to', stops: true })
  if (!f.sameShipTo) reasons.push({ code: 'ship-to-differs', stops: true })
  if (f.supplier === null) reasons.push({ code: 'no-supplier', stops: true })
  else {
    if (f.supplier.blocked) reasons.push({ code: 'supplier-blocked', stops: true, supplier: f.supplier.name })
    const { name, channel, reachable } = f.supplier
    if (!reachable) reasons.push({ code: 'supplier-unreachable', stops: true, supplier: name, channel })
  }
  if (f.needOf.length > 0 && f.needOf.every((id) => id === f.buyerId))
    reasons.push({ code: 'own-need-alone', stops: true })
  if (f.toBase === null) reasons.push({ code: 'no-rate', stops: true, currency: f.currency })
  else {
    const amount = convert(f.net, f.toBase, f.baseCurrency)
    if (!covers(f.orderingLimit, amount))
      reasons.push({ code: 'above-ordering-limit', stops: true, amount, limit: f.orderingLimit, who: f.mayIssue })
  }
  for (const line of f.lines) {
    if (line.ordered.currency !== line.approved.currency) {
      reasons.push({ code: 'currency-differs', stops: true })
      continue
    }
    const over = dec(line.ordered.amount).minus(dec(line.approved.amount))
    const byPercent = roundMoney(
      dec(line.approved.amount).times(dec(f.tolerance.percent)).dividedBy(100),
      line.approved.currency,
    )
    const within = over.lte(dec(byPercent.amount)) && over.lte(dec(f.tolerance.amount.amount))
    if (compare(line.ordered, line.approved) > 0 && !within) {
      reasons.push({
        code: 'above-approved',
        stops: true,
        description: line.description,
        approved: line.approved,
        ordered: line.ordered,
      })
    }
  }
  return verdict<'issued', IssueReason>('issued', reasons)
}
