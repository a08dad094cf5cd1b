import { dec, type DecimalText } from '#core/base/decimal'
import type { PaymentTerms } from '#core/base/day'
import type { OrderDifference } from '#core/order/compare'
import type { Language } from '#core/supplier/language'
import { sayDifference, sayValue } from './order-change'
import { sayTerms } from './terms'
import { OUTWARD_IN, type Ways } from './ways'

/** Everything that an order on paper says of itself, in one language. */
export interface OrderPaperWords {
  readonly order: (number: string) => string
  readonly blanketOrder: (number: string) => string
  readonly callOff: (number: string) => string
  readonly cancellation: (number: string) => string
  /** After the number: ", revision 2". */
  readonly revision: (revision: number) => string
  readonly quoteIt: string
  readonly replaces: (firstSent: string) => string
  readonly confirms: (placedAs: string) => string
  /** Nothing of a blanket order comes before it is called off; "until" is its last day. */
  readonly isCalledOff: (until: string) => string
  /** In the column of days. */
  readonly whenCalled: string
  readonly calledFrom: (blanket: string) => string
  readonly hasChanged: string
  readonly isCancelled: string
  readonly nothingMore: string
  readonly difference: (d: OrderDifference) => string
  readonly to: string
  readonly terms: string
  readonly paid: (terms: PaymentTerms) => string
  readonly delivered: string
  readonly until: (day: string) => string
  readonly agreement: string
  readonly deliverTo: string
  readonly buyer: string
  readonly what: string
  readonly howMany: string
  readonly price: string
  readonly per: (base: DecimalText) => string
  readonly needed: string
  readonly amount: string
  readonly cancelled: string
  readonly goods: string
  /** Of a discount or charge: a percentage of what. */
  readonly percentOf: (percent: string, base: string) => string
  readonly freight: string
  readonly withoutTax: string
  readonly tax: (rate: string, taxable: string) => string
  readonly total: string
  readonly atArrival: string
  /** Before the number of a page, and before how many there are. */
  readonly page: readonly [page: string, of: string]
}

const EN: OrderPaperWords = {
  order: (number) => `Purchase order ${number}`,
  blanketOrder: (number) => `Blanket order ${number}`,
  callOff: (number) => `Call-off ${number}`,
  cancellation: (number) => `Cancellation of purchase order ${number}`,
  revision: (revision) => `, revision ${revision}`,
  quoteIt: 'please quote this number on everything you send',
  replaces: (firstSent) => `takes the place of what we sent before; first sent ${firstSent}`,
  confirms: (placedAs) => `This confirms what we ordered already as ${placedAs}: please do not deliver it twice.`,
  isCalledOff: (until) => `Please deliver nothing yet: it is called off in parts, until ${until}.`,
  whenCalled: 'on call',
  calledFrom: (blanket) => `Called off of our blanket order ${blanket}.`,
  hasChanged: 'What has changed',
  isCancelled: 'It is cancelled',
  nothingMore: 'Please deliver nothing of this order any more.',
  difference: (d) => sayDifference(d, OUTWARD_IN.en),
  to: 'To',
  terms: 'Terms',
  paid: sayTerms,
  delivered: 'Delivery',
  until: (day) => `to be delivered until ${day}`,
  agreement: 'Agreement',
  deliverTo: 'Deliver to',
  buyer: 'Buyer',
  what: 'What',
  howMany: 'How many',
  price: 'Price',
  per: (base) => `per ${base}`,
  needed: 'Needed',
  amount: 'Amount',
  cancelled: 'cancelled',
  goods: 'Goods',
  percentOf: (percent, base) => `${percent} % of ${base}`,
  freight: 'Freight',
  withoutTax: 'Without tax',
  tax: (rate, taxable) => `Tax ${rate} % on ${taxable}`,
  total: 'Total',
  atArrival: 'When it arrives: this code leads to the order.',
  page: ['page', 'of'],
}

const DE: OrderPaperWords = {
  order: (number) => `Bestellung ${number}`,
  blanketOrder: (number) => `Abrufbestellung ${number}`,
  callOff: (number) => `Abruf ${number}`,
  cancellation: (number) => `Stornierung der Bestellung ${number}`,
  revision: (revision) => `, Änderung ${revision}`,
  quoteIt: 'bitte geben Sie diese Nummer auf allen Unterlagen an',
  replaces: (firstSent) => `ersetzt unser voriges Schreiben; zuerst gesandt am ${firstSent}`,
  confirms: (placedAs) => `Bestätigt unsere Bestellung unter ${placedAs}: bitte nicht doppelt liefern.`,
  isCalledOff: (until) => `Bitte noch nichts liefern: wir rufen in Teilen ab, bis ${until}.`,
  whenCalled: 'auf Abruf',
  calledFrom: (blanket) => `Abruf aus unserer Abrufbestellung ${blanket}.`,
  hasChanged: 'Was sich geändert hat',
  isCancelled: 'Die Bestellung ist storniert',
  nothingMore: 'Bitte liefern Sie aus dieser Bestellung nichts mehr.',
  difference: (d) =>
    sayIn(d, OUTWARD_IN.de, {
      colon: ': ',
      instead: (is, was) => `${is} statt ${was}`,
      off: (was) => `nicht mehr bestellt (vorher ${was})`,
      at: (is, was) => `zu ${is} statt ${was}`,
      day: (is, was) => `benötigt am ${is} statt am ${was}`,
      place: (is, was) => `zu liefern an ${is} statt an ${was}`,
      end: (is, was) => `endet am ${is}${was === '' ? '' : ` statt am ${was}`}`,
      freight: 'Fracht',
      none: 'keine',
    }),
  to: 'An',
  terms: 'Zahlung',
  paid: ({ kind, days }) => (kind === 'net' ? `${days} Tage netto` : `Monatsende und ${days} Tage`),
  delivered: 'Lieferung',
  until: (day) => `zu liefern bis ${day}`,
  agreement: 'Rahmenvertrag',
  deliverTo: 'Lieferadresse',
  buyer: 'Einkauf',
  what: 'Bezeichnung',
  howMany: 'Menge',
  price: 'Preis',
  per: (base) => `je ${base}`,
  needed: 'Benötigt',
  amount: 'Betrag',
  cancelled: 'storniert',
  goods: 'Waren',
  percentOf: (percent, base) => `${percent} % von ${base}`,
  freight: 'Fracht',
  withoutTax: 'Ohne Steuer',
  tax: (rate, taxable) => `Steuer ${rate} % auf ${taxable}`,
  total: 'Gesamt',
  atArrival: 'Beim Eintreffen: dieser Code führt zur Bestellung.',
  page: ['Seite', 'von'],
}

const FR: OrderPaperWords = {
  order: (number) => `Commande ${number}`,
  blanketOrder: (number) => `Commande ouverte ${number}`,
  callOff: (number) => `Appel de livraison ${number}`,
  cancellation: (number) => `Annulation de la commande ${number}`,
  revision: (revision) => `, révision ${revision}`,
  quoteIt: 'merci de rappeler ce numéro sur tous vos envois',
  replaces: (firstSent) => `remplace notre envoi précédent ; premier envoi le ${firstSent}`,
  confirms: (placedAs) => `Confirme notre commande passée sous ${placedAs} : merci de ne pas livrer deux fois.`,
  isCalledOff: (until) =>
    `Merci de ne rien livrer encore : nous appelons les livraisons par parties, jusqu’au ${until}.`,
  whenCalled: 'sur appel',
  calledFrom: (blanket) => `Appel sur notre commande ouverte ${blanket}.`,
  hasChanged: 'Ce qui a changé',
  isCancelled: 'La commande est annulée',
  nothingMore: 'Merci de ne plus rien livrer de cette commande.',
  difference: (d) =>
    sayIn(d, OUTWARD_IN.fr, {
      colon: '\u00A0: ',
      instead: (is, was) => `${is} au lieu de ${was}`,
      off: (was) => `n’est plus commandé (${was} auparavant)`,
      at: (is, was) => `à ${is} au lieu de ${was}`,
      day: (is, was) => `pour le ${is} au lieu du ${was}`,
      place: (is, was) => `à livrer à ${is} au lieu de ${was}`,
      end: (is, was) => `prend fin le ${is}${was === '' ? '' : ` au lieu du ${was}`}`,
      freight: 'Port',
      none: 'aucun',
    }),
  to: 'À',
  terms: 'Paiement',
  paid: ({ kind, days }) => (kind === 'net' ? `${days} jours net` : `fin de mois et ${days} jours`),
  delivered: 'Livraison',
  until: (day) => `à livrer jusqu’au ${day}`,
  agreement: 'Accord-cadre',
  deliverTo: 'Adresse de livraison',
  buyer: 'Acheteur',
  what: 'Désignation',
  howMany: 'Quantité',
  price: 'Prix',
  per: (base) => `par ${base}`,
  needed: 'Pour le',
  amount: 'Montant',
  cancelled: 'annulé',
  goods: 'Marchandises',
  percentOf: (percent, base) => `${percent} % de ${base}`,
  freight: 'Port',
  withoutTax: 'Hors taxe',
  tax: (rate, taxable) => `Taxe ${rate} % sur ${taxable}`,
  total: 'Total',
  atArrival: 'À l’arrivée : ce code mène à la commande.',
  page: ['page', 'sur'],
}

/** What an order on paper says, by the language of its supplier. */
export const ORDER_PAPER: Readonly<Record<Language, OrderPaperWords>> = { en: EN, de: DE, fr: FR }

/** How a language says that something is otherwise than before. */
interface Otherwise {
  /** Between what it is about and what is said of it. */
  readonly colon: string
  readonly instead: (is: string, was: string) => string
  readonly off: (was: string) => string
  readonly at: (is: string, was: string) => string
  readonly day: (is: string, was: string) => string
  readonly place: (is: string, was: string) => string
  /** "was" is "" where it had no last day. */
  readonly end: (is: string, was: string) => string
  readonly freight: string
  readonly none: string
}

function sayIn(d: OrderDifference, ways: Ways, says: Otherwise): string {
  switch (d.what) {
    case 'quantity': {
      const was = ways.quantity(d.was, d.unit)
      const said = dec(d.is).isZero() ? says.off(was) : says.instead(ways.quantity(d.is, d.unit), was)
      return `${d.description}${says.colon}${said}`
    }
    case 'price':
      return `${d.description}${says.colon}${says.at(ways.price(d.is, d.currency), ways.price(d.was, d.currency))}`
    case 'day':
      return `${d.description}${says.colon}${says.day(ways.date(d.is, ''), ways.date(d.was, ''))}`
    case 'ship-to':
      return says.place(d.is, d.was)
    case 'end':
      return says.end(ways.date(d.is, ''), d.was === null ? '' : ways.date(d.was, ''))
    case 'adjustment': {
      const value = (of: typeof d.is) => sayValue(d, of, ways, says.none)
      return `${d.name}${says.colon}${says.instead(value(d.is), value(d.was))}`
    }
    case 'freight': {
      const cost = (of: DecimalText) => (dec(of).isZero() ? says.none : ways.kept(of, d.currency))
      return `${says.freight}${says.colon}${says.instead(cost(d.is), cost(d.was))}`
    }
  }
}
