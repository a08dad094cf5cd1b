import type { ChannelName } from '#core/order/channel'
import type { AsideReason } from '#core/order/aside'
import type { IssueReason } from '#core/order/issue'
import type { OrderState } from '#core/order/moves'
import { sayMisfit } from './agreement'
import { sayDirectReason } from './direct'
import { formatSize, listWords } from './format'
import type { Ways } from './ways'

/** What a channel needs of a supplier. */
const CHANNEL_ADDRESS: Record<ChannelName, string> = { 'e-mail': 'e-mail address' }

/** Why a buyer may not issue an order alone, for whoever decides on it. */
export function sayWhySent(r: IssueReason, buyer: string, ways: Ways): string {
  switch (r.code) {
    case 'above-ordering-limit':
      return r.limit === null
        ? `${buyer} has no ordering limit.`
        : `${buyer} may order up to ${ways.money(r.limit)} alone.`
    case 'direct-undecided':
      return `${buyer} orders it without a request.`
    case 'above-approved':
      return (
        `${r.description === null ? 'The goods' : `“${r.description}”`} come${r.description === null ? '' : 's'} to ` +
        `${ways.money(r.ordered)}; ${ways.money(r.approved)} were approved.`
      )
    default:
      return sayIssueReason(r, ways)
  }
}

/** How an order stands, after “is”. */
export const sayOrderState = (state: OrderState): string =>
  state === 'draft'
    ? 'still being put together'
    : state === 'in approval'
      ? 'with whoever decides on it'
      : `${state} already`

/** The sentence for what stands in the way of issuing an order. */
export function sayIssueReason(r: IssueReason, ways: Ways): string {
  switch (r.code) {
    case 'order-state':
      return `This order is ${sayOrderState(r.state)}.`
    case 'order-empty':
      return 'Nothing lies on this tray yet.'
    case 'no-supplier':
      return 'Choose a supplier first.'
    case 'no-ship-to':
      return 'Say where it is to be delivered.'
    case 'own-need-alone':
      return 'This serves your own need alone; another buyer has to issue it.'
    case 'direct-forbidden':
    case 'direct-beyond-policy':
      return sayDirectReason(r, ways)
    case 'direct-undecided':
      return 'Nobody asked for it by a request: it is decided on first, as a request for it would be.'
    case 'direct-period-closed':
      return (
        `Period ${r.period.period} of ${r.period.year} is closed by now: write on it and choose another ` +
        'accounting date.'
      )
    case 'ship-to-differs':
      return 'The lines go to different places; an order goes to one.'
    case 'discounts-beyond-goods':
      return `${ways.money(r.discounts)} are taken off, and the lines come to ${ways.amount(r.goods)}.`
    case 'order-expired':
      return `It was to be delivered until ${ways.date(r.on, '')}, which is past: say until when.`
    case 'supplier-blocked':
      return `${r.supplier} cannot be ordered from now.`
    case 'supplier-unreachable':
      return `${r.supplier} has no ${CHANNEL_ADDRESS[r.channel]} for orders; finance can add it.`
    case 'files-too-large':
      return (
        `The files for the supplier come to ${formatSize(r.size)}, and ${formatSize(r.most)} can go with an order: ` +
        `leave some lines for another order.`
      )
    case 'no-rate':
      return `There is no exchange rate for ${r.currency}.`
    case 'agreement-unfit':
      return `It may not draw on ${r.agreement}. ${r.misfits.map((m) => sayMisfit(m, ways)).join(' ')}`
    case 'agreement-ceiling':
      return (
        `It passes the ${ways.money(r.ceiling)} of ${r.agreement} by ${ways.money(r.by)}: order less on it, or ` +
        'have it draw on another agreement, or on none.'
      )
    case 'above-approved':
      return (
        `${r.description === null ? 'The order' : `“${r.description}”`} comes to ${ways.money(r.ordered)}, more than ` +
        `the ${ways.money(r.approved)} that were approved${r.description === null ? '' : ' for it'}: ${
          r.who.length === 0
            ? 'it is decided on first, or its owner asks for more'
            : `it is decided on first, or its owner asks ${listWords(r.who.map((w) => w.name))} for more`
        }.`
      )
    case 'above-ordering-limit': {
      const own = r.limit === null ? 'You have no ordering limit' : `Your ordering limit is ${ways.money(r.limit)}`
      const who =
        r.who.length === 0
          ? 'nobody’s limit covers it; ask an administrator'
          : `${listWords(r.who.map((w) => w.name))} may issue it`
      return `${own}; this order is ${ways.money(r.amount)}: ${who}.`
    }
  }
}

/** Why lines may not be put aside until a day. */
export const sayAsideReason = (r: AsideReason, ways: Ways, today: string): string =>
  r.code === 'aside-not-later'
    ? 'Say a later day: on it they wait again.'
    : `Put aside they wait again by ${ways.date(r.most, today)} at the latest; what is not needed is cancelled.`
