import { XMLBuilder } from 'fast-xml-parser'
import { dec, type DecimalText } from '#core/base/decimal'
import type { TaxKey } from '#core/base/document-sums'
import type { MessageKind, MessageLine, MessageParty, MessageSort, OrderMessage } from '#core/order/message'
import { sayTerms } from '#shared/words/terms'

/**
 * UBL 2.1 (ISO/IEC 19845) by the profiles of Peppol BIS Ordering 3 and Advanced Ordering 3: elements in the order of
 * the standard's schema. What is empty is left out, as those profiles ask.
 */
const KINDS: Readonly<Record<MessageKind, { readonly root: string; readonly transaction: string; profile: string }>> = {
  order: { root: 'Order', transaction: 'order', profile: 'ordering' },
  change: { root: 'OrderChange', transaction: 'order_change', profile: 'advanced_ordering' },
  cancellation: { root: 'OrderCancellation', transaction: 'order_cancellation', profile: 'advanced_ordering' },
}
/** UN/EDIFACT code list 1229 (from memory): no action, changed, deleted. */
const LINE_STATUS = { 'as before': '4', changed: '3', cancelled: '2' } as const
/** UNTDID 1001 (from memory): order, blanket order, call off order. */
const SORTS: Readonly<Record<MessageSort, string>> = { order: '220', 'blanket order': '221', 'call-off': '226' }
const NAMESPACE = 'urn:oasis:names:specification:ubl:schema:xsd:'

type Node = { readonly [element: string]: Value }
type Value = string | Node | readonly Node[] | readonly string[] | null

/** An order document as UBL: well formed, in UTF-8. */
export function writeUbl(m: OrderMessage): string {
  const { root, transaction, profile } = KINDS[m.kind]
  const body: Node = {
    '@_xmlns': `${NAMESPACE}${root}-2`,
    '@_xmlns:cac': `${NAMESPACE}CommonAggregateComponents-2`,
    '@_xmlns:cbc': `${NAMESPACE}CommonBasicComponents-2`,
    'cbc:CustomizationID': `urn:fdc:peppol.eu:poacc:trns:${transaction}:3`,
    'cbc:ProfileID': `urn:fdc:peppol.eu:poacc:bis:${profile}:3`,
    ...(m.kind === 'cancellation' ? cancellation(m) : order(m)),
  }
  const builder = new XMLBuilder({
    ...{ ignoreAttributes: false, attributeNamePrefix: '@_', textNodeName: '#text', format: true },
    processEntities: true,
  })
  return builder.build({ '?xml': { '@_version': '1.0', '@_encoding': 'UTF-8' }, [root]: filled(body) })
}

function order(m: OrderMessage): Node {
  const { currency } = m
  const money = (amount: DecimalText): Node => ({ '@_currencyID': currency, '#text': amount })
  const isChange = m.kind === 'change'
  return {
    'cbc:ID': isChange ? `${m.number}-${m.revision}` : m.number,
    'cbc:IssueDate': m.day,
    ...(isChange ? { 'cbc:SequenceNumberID': String(m.revision) } : { 'cbc:OrderTypeCode': SORTS[m.sort] }),
    'cbc:Note': m.note,
    'cbc:DocumentCurrencyCode': currency,
    'cbc:CustomerReference': m.placedAs,
    'cac:ValidityPeriod': { 'cbc:EndDate': m.expiresOn },
    ...(isChange ? { 'cac:OrderReference': { 'cbc:ID': m.number, 'cbc:IssueDate': m.orderDay } } : {}),
    'cac:OrderDocumentReference': { 'cbc:ID': m.calledFrom },
    'cac:Contract': m.agreement === null ? null : { 'cbc:ID': m.agreement },
    'cac:BuyerCustomerParty': { 'cac:Party': party(m.buyer) },
    'cac:SellerSupplierParty': { 'cac:Party': party(m.seller) },
    'cac:Delivery': {
      'cac:DeliveryLocation': {
        'cbc:Description': m.deliverTo.details,
        'cbc:Name': m.deliverTo.name,
        'cac:Address': address(m.deliverTo.address),
      },
      'cac:RequestedDeliveryPeriod': { 'cbc:EndDate': firstDay(m) },
    },
    // The code of Incoterms, and its place (from memory).
    'cac:DeliveryTerms': m.delivery && { 'cbc:ID': m.delivery.term, 'cbc:SpecialTerms': m.delivery.place },
    'cac:PaymentTerms': { 'cbc:Note': sayTerms(m.terms) },
    'cac:AllowanceCharge': [
      ...m.adjustments.map((a) => ({
        'cbc:ChargeIndicator': String(a.kind === 'charge'),
        'cbc:AllowanceChargeReason': a.name,
        'cbc:MultiplierFactorNumeric': a.percent,
        'cbc:Amount': money(a.amount),
        'cbc:BaseAmount': a.percent === null ? null : money(a.of),
        'cac:TaxCategory': taxCategory(a.tax),
      })),
      ...(m.freight === null
        ? []
        : [
            {
              'cbc:ChargeIndicator': 'true',
              'cbc:AllowanceChargeReasonCode': 'FC',
              'cbc:AllowanceChargeReason': 'Freight',
              'cbc:Amount': money(m.freight.amount),
              'cac:TaxCategory': taxCategory(m.freight.tax),
            },
          ]),
    ],
    'cac:TaxTotal': { 'cbc:TaxAmount': money(m.sums.tax) },
    'cac:AnticipatedMonetaryTotal': {
      'cbc:LineExtensionAmount': money(m.sums.lines),
      'cbc:TaxExclusiveAmount': money(m.sums.net),
      'cbc:TaxInclusiveAmount': money(m.sums.total),
      'cbc:AllowanceTotalAmount': isNothing(m.sums.allowances) ? null : money(m.sums.allowances),
      'cbc:ChargeTotalAmount': isNothing(m.sums.charges) ? null : money(m.sums.charges),
      'cbc:PayableAmount': money(m.sums.total),
    },
    'cac:OrderLine': m.lines.map((l) => ({
      'cbc:Note': l.note,
      'cac:LineItem': lineItem({ ...l, needBy: dayOfLines(m) ?? l.needBy }, currency, isChange),
    })),
  }
}

const isNothing = (amount: DecimalText): boolean => dec(amount).isZero()

/** Of a blanket order every line is called off until its last day; null of any other. */
const dayOfLines = (m: OrderMessage): string | null => (m.sort === 'blanket order' ? m.expiresOn : null)

/** The first day by which something is needed that is still ordered. */
const firstDay = (m: OrderMessage): string =>
  dayOfLines(m) ??
  m.lines
    .filter((l) => l.status !== 'cancelled')
    .map((l) => l.needBy)
    .sort()[0] ??
  ''

function lineItem(l: MessageLine, currency: string, isChange: boolean): Node {
  const money = (amount: DecimalText): Node => ({ '@_currencyID': currency, '#text': amount })
  const quantity = (q: DecimalText): Node => ({ '@_unitCode': l.unit, '#text': q })
  return {
    'cbc:ID': l.number,
    'cbc:LineStatusCode': isChange ? LINE_STATUS[l.status] : null,
    'cbc:Quantity': quantity(l.quantity),
    'cbc:LineExtensionAmount': money(l.net),
    'cac:Delivery': { 'cac:RequestedDeliveryPeriod': { 'cbc:EndDate': l.needBy } },
    'cac:AllowanceCharge': l.allowances.map((a) => ({
      'cbc:ChargeIndicator': 'false',
      'cbc:AllowanceChargeReason': 'Discount',
      'cbc:MultiplierFactorNumeric': a.percent,
      'cbc:Amount': money(a.amount),
      'cbc:BaseAmount': a.percent === null ? null : money(a.of),
    })),
    'cac:Price': {
      'cbc:PriceAmount': money(l.unitPrice),
      'cbc:BaseQuantity': quantity(l.priceBase),
    },
    'cac:Item': {
      'cbc:Description': l.description,
      'cbc:Name': l.name,
      'cac:SellersItemIdentification': { 'cbc:ID': l.sellersItem },
      'cac:ClassifiedTaxCategory': taxCategory(l.tax),
    },
  }
}

function cancellation(m: OrderMessage): Node {
  return {
    'cbc:ID': `${m.number}-${m.revision}`,
    'cbc:IssueDate': m.day,
    'cbc:CancellationNote': m.note === '' ? 'The order is cancelled.' : m.note,
    'cac:OrderReference': { 'cbc:ID': m.number, 'cbc:IssueDate': m.orderDay },
    'cac:BuyerCustomerParty': { 'cac:Party': party(m.buyer) },
    'cac:SellerSupplierParty': { 'cac:Party': party(m.seller) },
  }
}

const party = (p: MessageParty): Node => ({
  'cac:PartyIdentification': { 'cbc:ID': p.number },
  'cac:PartyName': { 'cbc:Name': p.name },
  'cac:PostalAddress': address(p.address),
  'cac:PartyLegalEntity': { 'cbc:RegistrationName': p.name },
  'cac:Contact': { 'cbc:Name': p.contact.name, 'cbc:ElectronicMail': p.contact.email },
})

/** An address that is kept as lines of text. */
const address = (of: string): Node => ({
  'cac:AddressLine': of
    .split(/\n|, /)
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .map((line) => ({ 'cbc:Line': line })),
})

const taxCategory = (tax: TaxKey | null): Node | null =>
  tax === null ? null : { 'cbc:ID': tax.category, 'cbc:Percent': tax.rate, 'cac:TaxScheme': { 'cbc:ID': 'VAT' } }

/** Signs that XML 1.0 has no way to write. */
const UNWRITABLE = /[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]|\p{Cs}/gu

/** Without what is empty, and without signs that XML cannot write; null where nothing is left. */
function filled(value: Value): Value {
  if (value === null) return null
  if (typeof value === 'string') {
    const text = value.replace(UNWRITABLE, '').trim()
    return text === '' ? null : text
  }
  if (Array.isArray(value)) {
    const kept = (value as readonly Value[]).map(filled).filter((v) => v !== null)
    return kept.length === 0 ? null : (kept as Node[])
  }
  const kept = Object.entries(value as Node)
    .map(([name, of]) => [name, filled(of)] as const)
    .filter((e): e is readonly [string, Exclude<Value, null>] => e[1] !== null)
  // Attributes alone say nothing.
  return kept.every(([name]) => name.startsWith('@_')) ? null : Object.fromEntries(kept)
}
