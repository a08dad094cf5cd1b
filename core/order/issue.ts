import type { DirectOrders } from '#core/approval/policy'
import { refusedDraw, type DrawnOn } from '#core/agreement/ceiling'
import type { Misfit } from '#core/agreement/fit'
import type { Day, FiscalPeriod } from '#core/base/day'
import { dec, type DecimalText } from '#core/base/decimal'
import { compare, covers, convert, subtract, sum, type Money } from '#core/base/money'
import { verdict, type Verdict } from '#core/base/verdict'
import { MOST_SUPPLIER_FILES, type ChannelName } from './channel'
import { isExpired } from './conditions'
import { directBounds, type DirectBound } from './direct'
import { isOrderMoveFrom, type OrderState } from './moves'
import type { DecidedOrder } from './subject'

/** Who could issue an order that its buyer may not. */
export interface MayIssue {
  readonly personId: string
  readonly name: string
}

export type IssueReason =
  | { readonly code: 'order-state'; readonly stops: true; readonly state: OrderState }
  | {
      readonly code: 'order-empty' | 'no-supplier' | 'no-ship-to' | 'own-need-alone'
      readonly stops: true
    }
  | { readonly code: 'supplier-blocked'; readonly stops: true; readonly supplier: string }
  | {
      readonly code: 'supplier-unreachable'
      readonly stops: true
      readonly supplier: string
      readonly channel: ChannelName
    }
  /** Bytes of the files that go to the supplier, and how many can. */
  | { readonly code: 'files-too-large'; readonly stops: true; readonly size: number; readonly most: number }
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
      /** The line that became dearer; null: the order as a whole. */
      readonly description: string | null
      /** In the base currency. */
      readonly approved: Money
      readonly ordered: Money
      readonly who: readonly MayIssue[]
    }
  | (DirectBound & { readonly stops: true })
  /** Nobody decided yet on what a direct order asks for. */
  | { readonly code: 'direct-undecided'; readonly stops: true }
  /** The period in which a direct order stands was closed since it was written. */
  | { readonly code: 'direct-period-closed'; readonly stops: true; readonly period: FiscalPeriod }
  | { readonly code: 'ship-to-differs'; readonly stops: true }
  /** More is taken off the whole than its lines come to. */
  | { readonly code: 'discounts-beyond-goods'; readonly stops: true; readonly discounts: Money; readonly goods: Money }
  | { readonly code: 'order-expired'; readonly stops: true; readonly on: Day }
  | { readonly code: 'no-rate'; readonly stops: true; readonly currency: string }
  | AgreementReason

/** Why an order may not draw on its agreement. */
export type AgreementReason =
  | {
      readonly code: 'agreement-unfit'
      readonly stops: true
      readonly agreement: string
      readonly misfits: readonly Misfit[]
    }
  | {
      readonly code: 'agreement-ceiling'
      readonly stops: true
      readonly agreement: string
      readonly ceiling: Money
      /** By how much it would be passed. */
      readonly by: Money
    }

/** The agreement on which an order draws: how it fits, and what stands on it without this order. */
export interface OrderAgreement {
  readonly number: string
  readonly misfits: readonly Misfit[]
  readonly of: DrawnOn
}

/** Why a further `amount`, net, may not be drawn on an agreement. Source: rules of calculation, agreements. */
export function drawReasons({ number, misfits, of }: OrderAgreement, amount: Money): AgreementReason[] {
  const about = { stops: true as const, agreement: number }
  if (misfits.length > 0) return [{ code: 'agreement-unfit', ...about, misfits }]
  const by = refusedDraw(of, amount)
  return by === null || of.ceiling === null ? [] : [{ code: 'agreement-ceiling', ...about, ceiling: of.ceiling, by }]
}

/** How far the buyer's word reaches, and what was decided. */
export interface Authority {
  /** It asks for what it orders itself. */
  readonly isDirect: boolean
  /** Which orders the policy in force lets be made without a request. */
  readonly directOrders: DirectOrders
  readonly orderingLimit: Money | null
  /** Other people whose ordering limit covers the order, lowest limit first. */
  readonly mayIssue: readonly MayIssue[]
  /** How far an order, and a line that became dearer, may pass what was approved: within both, in the base currency. */
  readonly tolerance: { readonly percent: DecimalText; readonly amount: Money }
  /** Who may raise what was approved: whoever decides on the requests that it serves. */
  readonly deciders: readonly MayIssue[]
  /** What was decided on this order itself; null where it was not sent, or is not decided. */
  readonly decided: DecidedOrder | null
}

export interface IssueFacts extends Authority {
  readonly state: OrderState
  readonly buyerId: string
  readonly supplier: {
    readonly name: string
    /** How orders reach it, and whether that channel has what it needs. */
    readonly channel: ChannelName
    readonly reachable: boolean
    readonly blocked: boolean
    /** The currency of its freight, where no rate turns it into the order's. */
    readonly freightWithoutRate: string | null
  } | null
  /** It goes to its supplier: what was placed elsewhere need not. */
  readonly isSent: boolean
  readonly expiresOn: Day | null
  readonly today: Day
  /** Where a direct order stands and may not any more; null of every other. */
  readonly closedPeriod: FiscalPeriod | null
  /** Bytes of the files that go to the supplier. */
  readonly filesSize: number
  readonly hasShipTo: boolean
  readonly currency: string
  /** With freight: what the buyer's limit has to cover. What was approved is judged by the lines, without it. */
  readonly net: Money
  /** The lines alone, and what is taken off the whole. */
  readonly goods: Money
  readonly discounts: Money
  /** Units of its currency for one of the base; null where no rate is known. */
  readonly perBase: DecimalText | null
  readonly baseCurrency: string
  /** With what each bears of discounts and charges. */
  readonly lines: readonly { readonly description: string; readonly ordered: Money; readonly approved: Money }[]
  /** Whose need each requisition served is: its owner, its raiser, and whoever owned it since it was sent. */
  readonly needs: readonly (readonly string[])[]
  readonly sameShipTo: boolean
  /** Null where it draws on none. */
  readonly agreement: OrderAgreement | null
}

const OF_AUTHORITY: readonly string[] = [
  'above-ordering-limit',
  'above-approved',
  'direct-undecided',
] satisfies IssueReason['code'][]

/**
 * Whether an order, or its change, that may not be made may be sent for a decision: nothing but authority stands in its
 * way.
 */
export const needsDecision = (reasons: readonly { readonly code: string }[]): boolean =>
  reasons.length > 0 && reasons.every((r) => OF_AUTHORITY.includes(r.code))

/** Whether an order may be issued by this buyer, with everything that stands in its way. */
export function decideIssue(f: IssueFacts): Verdict<'issued', IssueReason> {
  const reasons: IssueReason[] = []
  if (!isOrderMoveFrom('issue', f.state)) reasons.push({ code: 'order-state', stops: true, state: f.state })
  if (f.lines.length === 0) reasons.push({ code: 'order-empty', stops: true })
  if (!f.hasShipTo) reasons.push({ code: 'no-ship-to', stops: true })
  if (!f.sameShipTo) reasons.push({ code: 'ship-to-differs', stops: true })
  if (f.supplier === null) reasons.push({ code: 'no-supplier', stops: true })
  else {
    if (f.supplier.blocked) reasons.push({ code: 'supplier-blocked', stops: true, supplier: f.supplier.name })
    const { name, channel, reachable, freightWithoutRate } = f.supplier
    if (f.isSent && !reachable) reasons.push({ code: 'supplier-unreachable', stops: true, supplier: name, channel })
    if (freightWithoutRate !== null) reasons.push({ code: 'no-rate', stops: true, currency: freightWithoutRate })
  }
  if (f.expiresOn !== null && isExpired(f.expiresOn, f.today))
    reasons.push({ code: 'order-expired', stops: true, on: f.expiresOn })
  if (f.closedPeriod !== null) reasons.push({ code: 'direct-period-closed', stops: true, period: f.closedPeriod })
  if (f.isSent && f.filesSize > MOST_SUPPLIER_FILES)
    reasons.push({ code: 'files-too-large', stops: true, size: f.filesSize, most: MOST_SUPPLIER_FILES })
  if (f.needs.length > 0 && f.needs.every((people) => people.includes(f.buyerId)))
    reasons.push({ code: 'own-need-alone', stops: true })
  reasons.push(...discountReasons(f))
  if (f.agreement !== null) reasons.push(...drawReasons(f.agreement, f.net))
  if (f.perBase === null) reasons.push({ code: 'no-rate', stops: true, currency: f.currency })
  else
    reasons.push(...authorityReasons({ ...f, perBase: f.perBase, amount: convert(f.net, f.perBase, f.baseCurrency) }))
  return verdict<'issued', IssueReason>('issued', reasons)
}

/** No more is taken off an order than its lines come to. */
export const discountReasons = ({ goods, discounts }: Pick<IssueFacts, 'goods' | 'discounts'>): IssueReason[] =>
  compare(discounts, goods) > 0 ? [{ code: 'discounts-beyond-goods', stops: true, discounts, goods }] : []

/** What is judged against limits and approvals: an amount in the base currency, and lines in the order's. */
export interface Judged extends Authority, Pick<IssueFacts, 'lines' | 'baseCurrency'> {
  readonly amount: Money
  readonly perBase: DecimalText
}

/** What of an order the buyer's own word does not cover: its amount, and what was approved of it. */
export function authorityReasons(f: Judged): IssueReason[] {
  const { amount, orderingLimit: limit, mayIssue: who } = f
  const wasDecided = f.decided !== null && isWithin({ ordered: amount, approved: f.decided.amount }, f.tolerance)
  return [
    ...(f.isDirect ? directBounds(f.directOrders, amount).map((r) => ({ ...r, stops: true as const })) : []),
    ...(covers(limit, amount) || wasDecided
      ? []
      : [{ code: 'above-ordering-limit' as const, stops: true as const, amount, limit, who }]),
    ...(f.isDirect && f.decided === null
      ? [{ code: 'direct-undecided' as const, stops: true as const }]
      : aboveApproved(f)),
  ]
}

/**
 * What passes its approval beyond the tolerance: the order's sum, and each line that became dearer. Judged in the base
 * currency against what was decided last: on the order itself, else on the requests, at the rates it was approved with;
 * the percentage is not rounded.
 */
function aboveApproved(f: Judged): IssueReason[] {
  const { baseCurrency: base, perBase } = f
  const decided = f.decided?.lines.length === f.lines.length ? f.decided.lines : null
  const lines = f.lines.map((l, i) => ({
    ...l,
    approved: decided?.[i] ?? l.approved,
    ordered: convert(l.ordered, perBase, base),
  }))
  const whole = {
    description: null,
    ordered: sum(
      lines.map((l) => l.ordered),
      base,
    ),
    approved: sum(
      lines.map((l) => l.approved),
      base,
    ),
  }
  // One line is the whole order; it is named as the line.
  const judged = lines.length === 1 ? lines : [whole, ...lines]
  return judged.flatMap((j) =>
    isWithin(j, f.tolerance)
      ? []
      : [
          {
            code: 'above-approved',
            stops: true,
            description: j.description,
            approved: j.approved,
            ordered: j.ordered,
            who: f.deciders,
          },
        ],
  )
}

function isWithin(
  { ordered, approved }: { readonly ordered: Money; readonly approved: Money },
  tolerance: IssueFacts['tolerance'],
): boolean {
  if (compare(ordered, approved) <= 0) return true
  const over = subtract(ordered, approved)
  const share = dec(approved.amount).times(dec(tolerance.percent)).percent()
  return dec(over.amount).lte(share) && compare(over, tolerance.amount) <= 0
}
