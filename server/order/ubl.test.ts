import { XMLParser, XMLValidator } from 'fast-xml-parser'
import { describe, expect, it } from 'vitest'
import type { OrderMessage } from '#core/order/message'
import { messageOf } from './message-of'
import type { OrderSnapshot } from './snapshot'
import { writeUbl } from './ubl'

const SNAPSHOT: OrderSnapshot = {
  ...{ number: 'P-26-00012', revision: 0, issuedOn: '2026-11-25', currency: 'EUR', note: 'Please call before.' },
  organisation: { name: 'Hallamere Oceanarium', address: 'Quay Gate 1, 24105 Hallamere', letterhead: '' },
  supplier: {
    ...{ number: 'S-0007', name: 'Corrigan & Sons <Pumps>', address: 'Dock Road 4\n24100 Hallamere' },
    email: 'orders@corrigan.example',
  },
  replyTo: 'purchasing@hallamere.example',
  shipTo: { name: 'Pump Hall', address: 'Quay Gate 3, 24105 Hallamere', details: ['Bay 4', 'telephone 0100'] },
  buyer: 'Leonie Farrow',
  terms: { kind: 'net', days: 30 },
  lines: [
    {
      ...{ description: 'Quartz sleeve \u0007\uD83D\uDC19', secondDescription: 'amalgam', notes: ['short lead'] },
      ...{ more: [], supplierPart: 'CP-QS-25', quantity: '12.5', unit: 'H87', unitPrice: '31.50', priceBase: '1' },
      ...{ needBy: '2026-12-08', net: '374.06', tax: { category: 'S', rate: '19' } },
      allowances: [{ percent: '5', amount: '19.69', of: '393.75' }],
    },
    {
      ...{ description: 'Hose', secondDescription: '', notes: [], more: [], supplierPart: null, quantity: '700' },
      ...{ unit: 'MTR', unitPrice: '18.90', priceBase: '100', needBy: '2026-12-01', net: '132.30' },
      ...{ tax: { category: 'Z', rate: '0' }, allowances: [] },
    },
  ],
  ...{ freight: '20.00', freightTax: { category: 'S', rate: '19' }, net: '526.36', total: '601.23' },
  taxes: [
    { category: 'S', rate: '19', taxable: '394.06', tax: '74.87' },
    { category: 'Z', rate: '0', taxable: '132.30', tax: '0.00' },
  ],
}
const CONDITIONS: Partial<OrderSnapshot> = {
  ...{
    delivery: { term: 'DAP', place: 'Pump Hall' },
    expiresOn: '2027-01-31',
    placedAs: 'PO 4711/b',
    calledFrom: 'P-26-00003',
  },
}
/** 5 % off the line that is taxed, and 6.00 put on it. */
const ADJUSTED: OrderSnapshot = {
  ...SNAPSHOT,
  adjustments: [
    {
      ...{ kind: 'discount', name: 'Early order', percent: '5', of: '374.06', amount: '18.70' },
      tax: { category: 'S', rate: '19' },
    },
    {
      ...{ kind: 'charge', name: 'Crate', percent: null, of: '506.36', amount: '6.00' },
      tax: { category: 'S', rate: '19' },
    },
  ],
  ...{ net: '513.66', total: '586.12' },
  taxes: [
    { category: 'S', rate: '19', taxable: '381.36', tax: '72.46' },
    { category: 'Z', rate: '0', taxable: '132.30', tax: '0.00' },
  ],
}
const CHANGED: OrderSnapshot = {
  ...SNAPSHOT,
  ...{ revision: 2, changedOn: '2026-11-28', changeNote: 'As agreed by telephone.' },
  lines: SNAPSHOT.lines.map((l, i) => (i === 1 ? { ...l, quantity: '0', net: '0.00' } : l)),
  differences: [{ what: 'quantity', line: 2, description: 'Hose', unit: 'MTR', was: '700', is: '0' }],
}

type Read = { readonly [name: string]: Read } & { readonly '#text'?: string }
const parser = new XMLParser({ ignoreAttributes: false, parseTagValue: false, parseAttributeValue: false })
const read = (m: OrderMessage): Read => parser.parse(writeUbl(m)) as Read
const text = (of: unknown): string =>
  typeof of === 'string' ? of : ((of as { '#text'?: string } | undefined)?.['#text'] ?? '')

// The sequence of the elements that are written, in UBL 2.1 (OASIS, ISO/IEC 19845); from memory.
const PARTIES = 'cac:BuyerCustomerParty cac:SellerSupplierParty'
const TAIL =
  `cac:OrderDocumentReference cac:Contract ${PARTIES} cac:Delivery cac:DeliveryTerms cac:PaymentTerms ` +
  'cac:AllowanceCharge cac:TaxTotal cac:AnticipatedMonetaryTotal cac:OrderLine'
const SEQUENCES: Readonly<Record<string, string>> = {
  Order:
    'cbc:CustomizationID cbc:ProfileID cbc:ID cbc:IssueDate cbc:OrderTypeCode cbc:Note cbc:DocumentCurrencyCode ' +
    `cbc:CustomerReference cac:ValidityPeriod ${TAIL}`,
  OrderChange:
    'cbc:CustomizationID cbc:ProfileID cbc:ID cbc:IssueDate cbc:SequenceNumberID cbc:Note cbc:DocumentCurrencyCode ' +
    `cbc:CustomerReference cac:ValidityPeriod cac:OrderReference ${TAIL}`,
  OrderCancellation:
    'cbc:CustomizationID cbc:ProfileID cbc:ID cbc:IssueDate cbc:Note cbc:CancellationNote cac:OrderReference ' +
    PARTIES,
  'cac:Party': 'cac:PartyIdentification cac:PartyName cac:PostalAddress cac:PartyLegalEntity cac:Contact',
  'cac:Contact': 'cbc:ID cbc:Name cbc:Telephone cbc:ElectronicMail',
  'cac:Delivery': 'cac:DeliveryLocation cac:RequestedDeliveryPeriod',
  'cac:DeliveryTerms': 'cbc:ID cbc:SpecialTerms',
  'cac:ValidityPeriod': 'cbc:StartDate cbc:EndDate',
  'cac:DeliveryLocation': 'cbc:ID cbc:Description cbc:Name cac:Address',
  'cac:AllowanceCharge':
    'cbc:ChargeIndicator cbc:AllowanceChargeReasonCode cbc:AllowanceChargeReason cbc:MultiplierFactorNumeric ' +
    'cbc:Amount cbc:BaseAmount cac:TaxCategory',
  'cac:TaxCategory': 'cbc:ID cbc:Percent cac:TaxScheme',
  'cac:ClassifiedTaxCategory': 'cbc:ID cbc:Percent cac:TaxScheme',
  'cac:AnticipatedMonetaryTotal':
    'cbc:LineExtensionAmount cbc:TaxExclusiveAmount cbc:TaxInclusiveAmount cbc:AllowanceTotalAmount ' +
    'cbc:ChargeTotalAmount cbc:PayableAmount',
  'cac:OrderLine': 'cbc:Note cac:LineItem',
  'cac:LineItem':
    'cbc:ID cbc:Note cbc:LineStatusCode cbc:Quantity cbc:LineExtensionAmount cac:Delivery cac:AllowanceCharge ' +
    'cac:Price cac:Item',
  'cac:Price': 'cbc:PriceAmount cbc:BaseQuantity',
  'cac:Item': 'cbc:Description cbc:Name cac:SellersItemIdentification cac:ClassifiedTaxCategory',
}
/** Elements that stand where the standard has them later or earlier, by the path to them. */
function misplaced(name: string, node: unknown, path = name): string[] {
  if (Array.isArray(node)) return node.flatMap((n) => misplaced(name, n, path))
  if (typeof node !== 'object' || node === null) return []
  const children = Object.keys(node).filter((k) => !k.startsWith('@_') && k !== '#text')
  const sequence = SEQUENCES[name]?.split(' ')
  const places = children.map((c) => sequence?.indexOf(c) ?? 0)
  const wrong =
    sequence === undefined ? [] : children.filter((_, i) => (places[i] ?? -1) < Math.max(0, ...places.slice(0, i)))
  const unknown = sequence === undefined ? [] : children.filter((c) => !sequence.includes(c))
  return [
    ...[...wrong, ...unknown].map((c) => `${path}/${c}`),
    ...children.flatMap((c) => misplaced(c, (node as Record<string, unknown>)[c], `${path}/${c}`)),
  ]
}

describe('an order as UBL', () => {
  const cases = [
    ['Order', SNAPSHOT],
    ['Order', { ...SNAPSHOT, ...CONDITIONS }],
    ['Order', ADJUSTED],
    ['OrderChange', { ...CHANGED, ...CONDITIONS, agreement: 'CF/2026-7' }],
    ['OrderCancellation', { ...CHANGED, isCancelled: true }],
  ] as const
  it.each(cases)('%s is well formed, in the sequence of the standard, without an empty element', (root, snapshot) => {
    const xml = writeUbl(messageOf(snapshot))
    expect(XMLValidator.validate(xml)).toBe(true)
    expect(xml).not.toMatch(/<(\S+)[^>]*>\s*<\/\1>|\/>/)
    const { '?xml': _, ...documents } = parser.parse(xml) as Record<string, Read>
    expect(Object.keys(documents)).toEqual([root])
    expect(misplaced(root, documents[root])).toEqual([])
    expect(documents[root]?.['@_xmlns']).toBe(`urn:oasis:names:specification:ubl:schema:xsd:${root}-2`)
  })
  it('reads back as the order that it is', () => {
    const { Order: o } = read(messageOf({ ...SNAPSHOT, agreement: 'CF/2026-7' })) as { Order: Read }
    expect(text(o?.['cac:Contract']?.['cbc:ID'])).toBe('CF/2026-7')
    expect(text(o?.['cbc:ID'])).toBe('P-26-00012')
    expect(text(o?.['cbc:CustomizationID'])).toBe('urn:fdc:peppol.eu:poacc:trns:order:3')
    expect(text(o?.['cac:SellerSupplierParty']?.['cac:Party']?.['cac:PartyName']?.['cbc:Name'])).toBe(
      'Corrigan & Sons <Pumps>',
    )
    const lines = o?.['cac:OrderLine'] as unknown as Read[]
    const items = lines.map((l) => l['cac:LineItem'] as Read)
    expect(
      items.map((l) => [text(l['cbc:ID']), text(l['cbc:Quantity']), text(l['cac:Price']?.['cbc:PriceAmount'])]),
    ).toEqual([
      ['1', '12.5', '31.50'],
      ['2', '700', '18.90'],
    ])
    expect(items.map((l) => (l['cbc:Quantity'] as unknown as Record<string, string>)['@_unitCode'])).toEqual([
      'H87',
      'MTR',
    ])
    expect(items.map((l) => text(l['cac:Price']?.['cbc:BaseQuantity']))).toEqual(['1', '100'])
    // The bell is gone, the octopus is there.
    expect(text(items[0]?.['cac:Item']?.['cbc:Name'])).toBe('Quartz sleeve \uD83D\uDC19')
    expect(text(items[0]?.['cac:AllowanceCharge']?.['cbc:Amount'])).toBe('19.69')
    expect(o?.['cac:Delivery']?.['cac:RequestedDeliveryPeriod']?.['cbc:EndDate']).toBe('2026-12-01')
  })
  // EN 16931, BR-CO-10, BR-CO-13 and BR-CO-15, which Peppol BIS Ordering 3 takes over.
  it.each([SNAPSHOT, ADJUSTED])('adds up as its standard asks: lines, allowances, charges, net, tax, total', (sent) => {
    const { Order: o } = read(messageOf(sent)) as { Order: Read }
    const total = o?.['cac:AnticipatedMonetaryTotal'] as unknown as Record<string, unknown>
    const cents = (of: unknown) => Math.round(Number(text(of)) * 100)
    const lines = (o?.['cac:OrderLine'] as unknown as Read[]).map((l) =>
      cents(l['cac:LineItem']?.['cbc:LineExtensionAmount']),
    )
    expect(lines.reduce((a, b) => a + b, 0)).toBe(cents(total['cbc:LineExtensionAmount']))
    const { 'cbc:AllowanceTotalAmount': taken = '0', 'cbc:ChargeTotalAmount': put } = total
    expect(cents(total['cbc:LineExtensionAmount']) - cents(taken) + cents(put)).toBe(
      cents(total['cbc:TaxExclusiveAmount']),
    )
    // BR-CO-11 and BR-CO-12: they are the sums of what stands on the document.
    const each = [o?.['cac:AllowanceCharge']].flat() as unknown as Read[]
    const of = (isCharge: string) =>
      each.filter((a) => text(a['cbc:ChargeIndicator']) === isCharge).reduce((s, a) => s + cents(a['cbc:Amount']), 0)
    expect([of('false'), of('true')]).toEqual([cents(taken), cents(put)])
    expect(cents(total['cbc:TaxExclusiveAmount']) + cents(o?.['cac:TaxTotal']?.['cbc:TaxAmount'])).toBe(
      cents(total['cbc:TaxInclusiveAmount']),
    )
    expect(total['cbc:PayableAmount']).toEqual({ '#text': sent.total, '@_currencyID': 'EUR' })
  })
  it('a change names the order, its own sequence, and what became of each line', () => {
    const { OrderChange: o } = read(messageOf(CHANGED)) as { OrderChange: Read }
    expect([
      text(o?.['cbc:ID']),
      text(o?.['cbc:SequenceNumberID']),
      text(o?.['cac:OrderReference']?.['cbc:ID']),
    ]).toEqual(['P-26-00012-2', '2', 'P-26-00012'])
    const lines = o?.['cac:OrderLine'] as unknown as Read[]
    expect(lines.map((l) => text(l['cac:LineItem']?.['cbc:LineStatusCode']))).toEqual(['4', '2'])
    expect(text(o?.['cbc:Note'])).toBe('As agreed by telephone.\nPlease call before.')
    expect(text(o?.['cac:Delivery']?.['cac:RequestedDeliveryPeriod']?.['cbc:EndDate'])).toBe('2026-12-08')
  })
  // UNTDID 1001, from memory.
  it('a blanket order and a call-off say which sort of order they are, and of which', () => {
    const sort = (more: Partial<OrderSnapshot>) => {
      const { Order: o } = read(messageOf({ ...SNAPSHOT, ...more })) as { Order: Read }
      const lines = o?.['cac:OrderLine'] as unknown as Read[]
      return [
        text(o?.['cbc:OrderTypeCode']),
        text(o?.['cac:OrderDocumentReference']?.['cbc:ID']),
        text(o?.['cac:Delivery']?.['cac:RequestedDeliveryPeriod']?.['cbc:EndDate']),
        text(lines[0]?.['cac:LineItem']?.['cac:Delivery']?.['cac:RequestedDeliveryPeriod']?.['cbc:EndDate']),
      ]
    }
    expect(sort({})).toEqual(['220', '', '2026-12-01', '2026-12-08'])
    // Nothing of a blanket order is wanted by the day of its lines: all of it until its last.
    expect(sort({ isBlanket: true, expiresOn: '2027-03-31' })).toEqual(['221', '', '2027-03-31', '2027-03-31'])
    expect(sort({ calledFrom: 'P-26-00003' })).toEqual(['226', 'P-26-00003', '2026-12-01', '2026-12-08'])
  })
  it('a cancellation says so, and of which order', () => {
    const { OrderCancellation: o } = read(messageOf({ ...CHANGED, isCancelled: true, changeNote: '', note: '' })) as {
      OrderCancellation: Read
    }
    expect(text(o?.['cbc:CancellationNote'])).toBe('The order is cancelled.')
    expect(text(o?.['cac:OrderReference']?.['cbc:IssueDate'])).toBe('2026-11-25')
  })
  it('an order that was sent before lines kept their tax says the one tax it has, else none', () => {
    const bare = SNAPSHOT.lines.map(({ tax: _, allowances: _a, notes: _n, secondDescription: _s, ...l }) => l)
    const [standard] = SNAPSHOT.taxes
    const one = messageOf({ ...SNAPSHOT, lines: bare, taxes: standard === undefined ? [] : [standard] })
    expect(one.lines.map((l) => l.tax)).toEqual([
      { category: 'S', rate: '19' },
      { category: 'S', rate: '19' },
    ])
    expect(messageOf({ ...SNAPSHOT, lines: bare }).lines.map((l) => l.tax)).toEqual([null, null])
  })
})
