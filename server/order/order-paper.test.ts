import { expect, test } from 'vitest'
import { paperOfOrder } from './order-paper'
import type { OrderSnapshot } from './snapshot'

const SENT: OrderSnapshot = {
  ...{ number: 'P-26-00012', revision: 0, issuedOn: '2026-11-25', currency: 'EUR', note: '' },
  organisation: { name: 'Hallamere Oceanarium', address: 'Quay Gate 1, 24105 Hallamere' },
  supplier: { number: 'S-0008', name: 'Mistral Chandlery', address: 'Trade Street 1', email: 'orders@mistral.example' },
  shipTo: { name: 'Boat House', address: 'Old Basin 4', details: [] },
  ...{ buyer: 'Leonie Farrow', terms: { kind: 'net', days: 30 } },
  lines: [
    {
      ...{ description: 'Yard work', supplierPart: null, quantity: '1', unit: 'LS', unitPrice: '900', priceBase: '1' },
      ...{ needBy: '2026-12-08', net: '900.00' },
    },
  ],
  ...{ net: '900.00', total: '900.00', taxes: [] },
}
const written = (more: Partial<OrderSnapshot>) => {
  const paper = paperOfOrder({ ...SENT, ...more }, 'https://rekko.example/orders/1')
  return { title: paper.title, says: JSON.stringify(paper.blocks) }
}

test('a blanket order says that nothing comes before it is called off, in the language of its supplier', () => {
  const blanket = { isBlanket: true, expiresOn: '2027-03-31' }
  const english = written(blanket)
  expect(english.title).toBe('Blanket order P-26-00012')
  expect(english.says).toContain('Please deliver nothing yet: it is called off in parts, until 31 March 2027.')
  expect(english.says).toContain('"lump sum"')
  // The day of its lines is no day by which they come.
  expect(english.says).toContain('on call')
  expect(written({}).says).not.toContain('on call')
  const [german, french] = [written({ ...blanket, language: 'de' }), written({ ...blanket, language: 'fr' })]
  expect([german.title, french.title]).toEqual(['Abrufbestellung P-26-00012', 'Commande ouverte P-26-00012'])
  expect(german.says).toContain('Bitte noch nichts liefern')
  expect(french.says).toContain('forfait')
})

test('a call-off names its blanket order, and its cancellation is one of the call-off alone', () => {
  const call = written({ calledFrom: 'P-26-00003' })
  expect(call.title).toBe('Call-off P-26-00012')
  expect(call.says).toContain('Called off of our blanket order P-26-00003.')
  const over = { calledFrom: 'P-26-00003', revision: 1, isCancelled: true, changedOn: '2026-11-28' }
  expect(written(over).says).not.toContain('P-26-00003')
})

test('what is taken off or put on stands between goods and sum, in the language of the supplier', () => {
  const tax = { category: 'S', rate: '19' }
  const adjusted: Partial<OrderSnapshot> = {
    adjustments: [
      { kind: 'discount', name: 'Winter', percent: '2.5', of: '900.00', amount: '22.50', tax },
      { kind: 'charge', name: 'Crate', percent: null, of: '900.00', amount: '6.00', tax },
    ],
    net: '883.50',
  }
  const rows = (language: 'en' | 'de' | 'fr') => {
    const sums = paperOfOrder({ ...SENT, ...adjusted, language }, 'https://rekko.example/1').blocks.find(
      (b) => b.is === 'sums',
    )
    return sums?.is === 'sums' ? sums.rows.slice(0, 4).map((row) => row.slice(0, 2)) : []
  }
  expect(rows('en')).toEqual([
    ['Goods', '900.00'],
    ['Winter, 2.5 % of 900.00', '−' + '22.50'],
    ['Crate', '6.00'],
    ['Without tax', '883.50'],
  ])
  expect(rows('de')[1]).toEqual(['Winter, 2,5 % von 900,00', '−' + '22,50'])
  expect(rows('fr')[1]?.[0]).toBe('Winter, 2,5 % de 900,00')
})
