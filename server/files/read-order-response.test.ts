import { expect, test } from 'vitest'
import { readOrderResponse } from './read-order-response'

// Elements, their order and their codes: OASIS UBL 2.1, OrderResponse, and Peppol BIS Ordering 3; from memory.
const response = (more: { code?: string; lines?: string; head?: string } = {}) =>
  Buffer.from(`<?xml version="1.0" encoding="UTF-8"?>
<OrderResponse xmlns="urn:oasis:names:specification:ubl:schema:xsd:OrderResponse-2"
  xmlns:cac="urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2"
  xmlns:cbc="urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2">
  ${more.head ?? ''}
  <cbc:ID>OR-881</cbc:ID>
  <cbc:IssueDate>2026-11-26</cbc:IssueDate>
  <cbc:OrderResponseCode>${more.code ?? 'CA'}</cbc:OrderResponseCode>
  <cbc:Note>The ship is late &amp; full</cbc:Note>
  <cbc:DocumentCurrencyCode>EUR</cbc:DocumentCurrencyCode>
  <cac:OrderReference><cbc:ID>P-26-00012</cbc:ID></cac:OrderReference>
  <cac:SellerSupplierParty><cac:Party>
    <cac:PartyLegalEntity><cbc:RegistrationName>Corrigan Pumps</cbc:RegistrationName></cac:PartyLegalEntity>
    <cac:Contact><cbc:Name>Jo Berg</cbc:Name></cac:Contact>
  </cac:Party></cac:SellerSupplierParty>
  <cac:Delivery><cac:PromisedDeliveryPeriod>
    <cbc:EndDate>2026-12-10</cbc:EndDate></cac:PromisedDeliveryPeriod></cac:Delivery>
  ${more.lines ?? ''}
</OrderResponse>`)
const LINES = `<cac:OrderLine><cac:LineItem>
    <cbc:ID>1</cbc:ID><cbc:LineStatusCode>3</cbc:LineStatusCode><cbc:Quantity unitCode="H87">4</cbc:Quantity>
    <cac:Delivery><cac:PromisedDeliveryPeriod><cbc:StartDate>2026-12-18</cbc:StartDate>
      <cbc:EndDate>2026-12-20</cbc:EndDate></cac:PromisedDeliveryPeriod></cac:Delivery>
    <cac:Price><cbc:PriceAmount currencyID="EUR">12.40</cbc:PriceAmount>
      <cbc:BaseQuantity unitCode="H87">1</cbc:BaseQuantity></cac:Price>
    <cac:Item><cbc:Name>Seal</cbc:Name></cac:Item>
  </cac:LineItem><cac:OrderLineReference><cbc:LineID>2</cbc:LineID></cac:OrderLineReference></cac:OrderLine>
  <cac:OrderLine><cac:LineItem>
    <cbc:ID>3</cbc:ID><cbc:LineStatusCode>7</cbc:LineStatusCode></cac:LineItem></cac:OrderLine>`

test('an OrderResponse is read with what it says of the whole and of each line', () => {
  expect(readOrderResponse(response({ lines: LINES }))).toEqual({
    order: 'P-26-00012',
    says: 'with changes',
    by: 'Jo Berg',
    note: 'The ship is late & full',
    currency: 'EUR',
    day: '2026-12-10',
    lines: [
      {
        ...{ number: '2', status: 'changed', quantity: '4', unit: 'H87', unitPrice: '12.40', priceBase: '1' },
        day: '2026-12-20',
      },
      {
        ...{ number: '3', status: 'refused', quantity: null, unit: null, unitPrice: null, priceBase: null },
        day: null,
      },
    ],
  })
  for (const [code, says] of Object.entries({ AB: 'only-arrived', AP: 'accepted', RE: 'refused' }))
    expect(readOrderResponse(response({ code })).says).toBe(says)
})

test('what is no such document, is broken, or brings entities is refused with a sentence', () => {
  const refusal = (bytes: Buffer) => {
    try {
      return JSON.stringify(readOrderResponse(bytes))
    } catch (e) {
      return (e as { detail?: string }).detail ?? 'a fault'
    }
  }
  expect(refusal(Buffer.from('<Order/>'))).toBe('This XML is no OrderResponse of UBL 2.1.')
  expect(refusal(Buffer.from('<OrderResponse><a></OrderResponse>'))).toContain('is broken')
  expect(refusal(Buffer.from('hello'))).toMatch(/is broken|is no OrderResponse/)
  expect(refusal(Buffer.from('<!DOCTYPE x [<!ENTITY a "b">]><OrderResponse/>'))).toContain('entities of its own')
  expect(refusal(response({ code: 'ZZ' }))).toContain('“ZZ” is no code')
  expect(refusal(response({ lines: LINES.replace('>3</cbc:LineStatusCode>', '>8</cbc:LineStatusCode>') }))).toContain(
    '“8” is no code of a line',
  )
})
