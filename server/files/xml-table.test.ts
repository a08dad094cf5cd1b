import { expect, test } from 'vitest'
import { readSheet } from './read-sheet'

const read = (xml: string, base = 'EUR', mark: '.' | ',' = '.') => readSheet(Buffer.from(xml), { base, mark })

/** The form of the European Central Bank's reference rates (eurofxref), from memory; the figures are ours. */
const RATES = `<?xml version="1.0" encoding="UTF-8"?>
<gesmes:Envelope xmlns:gesmes="http://www.gesmes.org/xml/2002-08-01"
  xmlns="http://www.ecb.int/vocabulary/2002-08-01/eurofxref">
  <gesmes:subject>Reference rates</gesmes:subject>
  <gesmes:Sender><gesmes:name>European Central Bank</gesmes:name></gesmes:Sender>
  <Cube>
    <Cube time="2026-11-26"><Cube currency="USD" rate="1.2"/><Cube currency="GBP" rate="0.8"/></Cube>
    <Cube time="2026-11-25"><Cube currency="USD" rate="1.19"/><Cube currency="GBP" rate="0.85"/></Cube>
  </Cube>
</gesmes:Envelope>`

/** A Catalogue of UBL 2.1, its elements in the order of the standard's schema (from memory). */
const CATALOGUE = `<?xml version="1.0" encoding="UTF-8"?>
<cat:Catalogue xmlns:cat="urn:oasis:names:specification:ubl:schema:xsd:Catalogue-2"
  xmlns:cbc="urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2"
  xmlns:cac="urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2">
  <cbc:UBLVersionID>2.1</cbc:UBLVersionID>
  <cbc:ID>CAT-7</cbc:ID>
  <cbc:IssueDate>2026-11-01</cbc:IssueDate>
  <cac:ProviderParty><cac:PartyName><cbc:Name>Tallow Marine &amp; Sons</cbc:Name></cac:PartyName></cac:ProviderParty>
  <cac:ReceiverParty><cac:PartyName><cbc:Name>Us</cbc:Name></cac:PartyName></cac:ReceiverParty>
  <cac:CatalogueLine>
    <cbc:ID>1</cbc:ID>
    <cbc:OrderableUnit>BX</cbc:OrderableUnit>
    <cac:RequiredItemLocationQuantity>
      <cbc:LeadTimeMeasure unitCode="DAY">6</cbc:LeadTimeMeasure>
      <cbc:MinimumQuantity unitCode="BX">1</cbc:MinimumQuantity>
      <cac:Price>
        <cbc:PriceAmount currencyID="EUR">31.50</cbc:PriceAmount>
        <cbc:BaseQuantity unitCode="BX">1</cbc:BaseQuantity>
      </cac:Price>
    </cac:RequiredItemLocationQuantity>
    <cac:RequiredItemLocationQuantity>
      <cbc:MinimumQuantity unitCode="BX">10</cbc:MinimumQuantity>
      <cac:Price><cbc:PriceAmount currencyID="EUR">27.90</cbc:PriceAmount></cac:Price>
    </cac:RequiredItemLocationQuantity>
    <cac:Item>
      <cbc:Description>Clear fused quartz</cbc:Description>
      <cbc:Name>Quartz sleeve</cbc:Name>
      <cac:SellersItemIdentification><cbc:ID>QS-25</cbc:ID></cac:SellersItemIdentification>
      <cac:ClassifiedTaxCategory><cbc:ID>S</cbc:ID><cbc:Percent>19</cbc:Percent></cac:ClassifiedTaxCategory>
    </cac:Item>
  </cac:CatalogueLine>
  <cac:CatalogueLine>
    <cbc:ID>2</cbc:ID>
    <cac:RequiredItemLocationQuantity>
      <cac:Price><cbc:PriceAmount currencyID="EUR">4</cbc:PriceAmount></cac:Price>
    </cac:RequiredItemLocationQuantity>
    <cac:Item>
      <cbc:Name>Seal</cbc:Name>
      <cac:SellersItemIdentification><cbc:ID>S-1</cbc:ID></cac:SellersItemIdentification>
    </cac:Item>
  </cac:CatalogueLine>
</cat:Catalogue>`

test('reference rates become rows of day, currency and rate', async () => {
  const { rows, notes } = await read(RATES)
  expect(rows).toEqual([
    ['Day', 'Currency', 'Rate'],
    ['2026-11-26', 'USD', '1.2'],
    ['2026-11-26', 'GBP', '0.8'],
    ['2026-11-25', 'USD', '1.19'],
    ['2026-11-25', 'GBP', '0.85'],
  ])
  expect(notes).toEqual([])
})
test('for another base they are turned, said so, and written with the reader’s mark', async () => {
  const { rows, notes } = await read(RATES, 'GBP', ',')
  expect(rows.slice(1, 3)).toEqual([
    ['2026-11-26', 'EUR', '1,25'],
    ['2026-11-26', 'USD', '1,5'],
  ])
  expect(notes).toEqual(['The file has rates for one EUR; they were turned into rates for one GBP.'])
  await expect(read(RATES, 'NOK')).rejects.toThrow('no rate for NOK')
})
test('a catalogue becomes rows of items, with prices by least quantity; what no line says is no column', async () => {
  expect((await read(CATALOGUE)).rows).toEqual([
    ['Their number', 'Name', 'Description', 'Supplier', 'Unit', 'Prices', 'Price per', 'Currency', 'Tax', 'Lead days'],
    ...[
      ['QS-25', 'Quartz sleeve', 'Clear fused quartz', 'Tallow Marine & Sons', 'BX', '1: 31.50; 10: 27.90'],
      ['S-1', 'Seal', '', 'Tallow Marine & Sons', '', '1: 4'],
    ].map((row, i) => [...row, ...(i === 0 ? ['1', 'EUR', 'S', '6'] : ['', 'EUR'])]),
  ])
})
test.each([
  ['<a><b></a>', 'broken'],
  ['<invoice/>', 'neither a Catalogue'],
  ['<!DOCTYPE x [<!ENTITY a "aaaa">]><x>&a;</x>', 'entities of its own'],
  [RATES.replace('rate="1.2"', 'rate="much"'), 'no number'],
  ['<Catalogue></Catalogue>', 'has no line'],
])('%s is refused with a sentence', async (xml, sentence) => {
  await expect(read(xml)).rejects.toThrow(sentence)
})
