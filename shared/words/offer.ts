import { unitName } from '#core/base/unit'
import type { OfferReason } from '#core/order/offer'
import { STANDING_WORDS } from './supplier'

/** Why a line cannot be ordered of whoever offers the same, in a sentence that stands by itself. */
export function sayOfferReason(r: OfferReason, supplier: string): string {
  switch (r.code) {
    case 'offer-without-price':
      return `No price of ${supplier} holds today.`
    case 'offer-other-unit':
      return `${supplier} sells it by ${unitName(r.unit)}; it was asked for by ${unitName(r.asked)}.`
    case 'offer-other-currency':
      return `${supplier} is paid in ${r.currency}; it was asked for in ${r.asked}.`
    case 'offer-of-inactive':
      return `${supplier} ${STANDING_WORDS[r.standing]}.`
    case 'offer-stopped':
      return r.text
  }
}
