import type { ResponseLine, ResponseMessage } from '#core/order/response'
import { invalid } from '../http/problem'
import { all, at, readXml, textOf, type Piece } from './xml'

/** What the code of a response says (UNCL 4343 as Peppol BIS Ordering 3 has it; from memory). */
const SAYS: Readonly<Record<string, ResponseMessage['says']>> = {
  AB: 'only-arrived',
  AP: 'accepted',
  CA: 'with changes',
  RE: 'refused',
}
/** What the code of a line says (UNCL 1229, the same; from memory). */
const STATUS: Readonly<Record<string, ResponseLine['status']>> = {
  '1': 'added',
  '3': 'changed',
  '5': 'accepted',
  '7': 'refused',
  '42': 'accepted',
}

/** Reads an OrderResponse of UBL 2.1 (OASIS); refuses all else with a sentence. */
export function readOrderResponse(bytes: Buffer): ResponseMessage {
  const response = at(readXml(bytes), 'OrderResponse')
  if (response === undefined) throw invalid('This XML is no OrderResponse of UBL 2.1.')
  const code = textOf(response, 'OrderResponseCode')
  const says = SAYS[code]
  if (says === undefined) throw invalid(`“${code}” is no code of an answer that Rekko knows: AB, AP, CA and RE are.`)
  const order = textOf(response, 'OrderReference', 'ID')
  if (order === '') throw invalid('This OrderResponse does not say which order it answers.')
  const contact = textOf(response, 'SellerSupplierParty', 'Party', 'Contact', 'Name')
  const party = textOf(response, 'SellerSupplierParty', 'Party', 'PartyName', 'Name')
  const legal = textOf(response, 'SellerSupplierParty', 'Party', 'PartyLegalEntity', 'RegistrationName')
  return {
    order,
    says,
    by: [contact, party, legal].find((n) => n !== '') ?? 'the supplier',
    note: all(response, 'Note')
      .map((n) => textOf(n))
      .filter((n) => n !== '')
      .join('\n')
      .slice(0, 1000),
    currency: textOf(response, 'DocumentCurrencyCode'),
    day: promised(at(response, 'Delivery')),
    lines: all(response, 'OrderLine').map(lineOf),
  }
}

function lineOf(line: Piece): ResponseLine {
  const item = at(line, 'LineItem')
  const number = textOf(line, 'OrderLineReference', 'LineID') || textOf(item, 'ID')
  const code = textOf(item, 'LineStatusCode')
  const status = code === '' ? 'accepted' : STATUS[code]
  if (status === undefined) throw invalid(`“${code}” is no code of a line that Rekko knows: 1, 3, 5, 7 and 42 are.`)
  return {
    number,
    status,
    quantity: orNull(textOf(item, 'Quantity')),
    unit: orNull(textOf(item, 'Quantity', '@unitCode')),
    unitPrice: orNull(textOf(item, 'Price', 'PriceAmount')),
    priceBase: orNull(textOf(item, 'Price', 'BaseQuantity')),
    day: promised(at(item, 'Delivery')),
  }
}

/** The last day of the promised period, or its first where it is open. */
const promised = (delivery: Piece | undefined): string | null =>
  orNull(
    textOf(delivery, 'PromisedDeliveryPeriod', 'EndDate') || textOf(delivery, 'PromisedDeliveryPeriod', 'StartDate'),
  )
const orNull = (text: string): string | null => (text === '' ? null : text)
