import type { ConditionReason, DeliveryTerm, OrderConditions } from '#core/order/conditions'
import { sayAdjustmentReason } from './adjustment'
import { sayTerms } from './terms'
import type { Ways } from './ways'

/** Incoterms 2020, by their names. */
export const DELIVERY: Readonly<Record<DeliveryTerm, string>> = {
  EXW: 'ex works',
  FCA: 'free carrier',
  CPT: 'carriage paid to',
  CIP: 'carriage and insurance paid to',
  DAP: 'delivered at place',
  DPU: 'delivered at place unloaded',
  DDP: 'delivered duty paid',
  FAS: 'free alongside ship',
  FOB: 'free on board',
  CFR: 'cost and freight',
  CIF: 'cost, insurance and freight',
}

/** "net 30 days · DAP Harborough · until 31 January": what is not said is left out. */
export function sayConditions(
  c: Omit<OrderConditions, 'placedAs' | 'isSent' | 'adjustments'>,
  ways: Ways,
  today: string,
): string {
  return [
    sayTerms(c.terms),
    ...(c.delivery === null ? [] : [`${c.delivery.term} ${c.delivery.place}`]),
    ...(c.expiresOn === null ? [] : [sayEnd(c.isBlanket, ways.date(c.expiresOn, today))]),
  ].join(' · ')
}

const sayEnd = (isBlanket: boolean, day: string): string =>
  isBlanket ? `blanket order, called off in parts until ${day}` : `to be delivered until ${day}`

/** What is wrong with the conditions of an order. */
export function sayConditionReason(r: ConditionReason, ways: Ways, today: string): string {
  switch (r.code) {
    case 'no-delivery-place':
      return 'A term of delivery needs its place: where the goods are handed over.'
    case 'number-says-nothing':
      return 'The number given elsewhere needs a letter or a figure.'
    case 'sent-nowhere':
      return 'Only what was placed elsewhere can be kept from its supplier.'
    case 'blanket-without-end':
      return 'A blanket order ends some day: say until when it is called off.'
    case 'expiry-is-past':
      return `${ways.date(r.on, today)} lies in the past: nothing could be delivered until then.`
    default:
      return sayAdjustmentReason(r)
  }
}

/** That an order was placed elsewhere already, and whether its supplier hears of it; "" of one that was not. */
export const sayPlaced = (
  { placedAs, isSent }: Pick<OrderConditions, 'placedAs' | 'isSent'>,
  supplier: string,
): string =>
  placedAs === null
    ? ''
    : `placed already as ${placedAs}; ` +
      (isSent ? `${supplier} is sent a confirmation` : `nothing is sent to ${supplier}`)
