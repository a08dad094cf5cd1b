import { expect, it } from 'vitest'
import { compareOrders, type OrderStand } from './compare'

const stand = (more: Partial<OrderStand['lines'][number]> = {}, whole: Partial<OrderStand> = {}): OrderStand => ({
  lines: [
    {
      ...{ description: 'Pump seal', quantity: '10', unit: 'H87', unitPrice: '12.50', needBy: '2026-12-01' },
      net: '125.00',
      ...more,
    },
  ],
  ...{ shipTo: 'Pump Hall', expiresOn: null, freight: '0', adjustments: [], net: '125.00', currency: 'EUR' },
  ...whole,
})

// Written by hand, no source.
it('tells what one state of an order says otherwise than another, and nothing that is only written otherwise', () => {
  expect(compareOrders(stand(), stand({ quantity: '10.00', unitPrice: '12.5' }, { freight: '0.00' }))).toEqual([])
  const about = { line: 1, description: 'Pump seal' }
  expect(compareOrders(stand(), stand({ quantity: '4', unitPrice: '13', needBy: '2026-12-09' }))).toEqual([
    { what: 'quantity', ...about, unit: 'H87', was: '10', is: '4' },
    { what: 'price', ...about, currency: 'EUR', was: '12.50', is: '13' },
    { what: 'day', ...about, was: '2026-12-01', is: '2026-12-09' },
  ])
  expect(compareOrders(stand(), stand({}, { shipTo: 'Goods Yard', freight: '18.00' }))).toEqual([
    { what: 'ship-to', was: 'Pump Hall', is: 'Goods Yard' },
    { what: 'freight', currency: 'EUR', was: '0', is: '18.00' },
  ])
})

it('tells of another last day, and of a first one', () => {
  const until = (expiresOn: string | null) => stand({}, { expiresOn })
  expect(compareOrders(until('2026-12-31'), until('2027-01-31'))).toEqual([
    { what: 'end', was: '2026-12-31', is: '2027-01-31' },
  ])
  expect(compareOrders(until(null), until('2027-01-31'))).toEqual([{ what: 'end', was: null, is: '2027-01-31' }])
  expect(compareOrders(until('2026-12-31'), until('2026-12-31'))).toEqual([])
})
it('tells of a line that is off nothing else', () => {
  expect(compareOrders(stand(), stand({ quantity: '0', unitPrice: '13', needBy: '2026-12-09' }))).toEqual([
    { what: 'quantity', line: 1, description: 'Pump seal', unit: 'H87', was: '10', is: '0' },
  ])
})

it('what is taken off or put on is told by its name, and a percentage not by what it comes to', () => {
  const off = (percent: string | null, amount: string, name = 'Spring') => ({
    kind: 'discount' as const,
    name,
    percent,
    amount,
  })
  const was = stand({}, { adjustments: [off('3', '3.00'), off('3', '1.50'), off(null, '4.00', 'Voucher')] })
  // The goods are fewer: three percent of them are three percent.
  expect(compareOrders(was, stand({}, { adjustments: [off('3', '2.00'), off(null, '4.00', 'Voucher')] }))).toEqual([])
  const crate = { kind: 'charge' as const, name: 'Spring', percent: null, amount: '6.00' }
  expect(compareOrders(was, stand({}, { adjustments: [off('5', '7.00'), crate] }))).toEqual([
    {
      ...{ what: 'adjustment', kind: 'discount', name: 'Spring', currency: 'EUR' },
      ...{ was: { percent: '3', amount: '4.5' }, is: { percent: '5', amount: '7' } },
    },
    {
      ...{ what: 'adjustment', kind: 'discount', name: 'Voucher', currency: 'EUR' },
      ...{ was: { percent: null, amount: '4' }, is: null },
    },
    {
      ...{ what: 'adjustment', kind: 'charge', name: 'Spring', currency: 'EUR' },
      ...{ was: null, is: { percent: null, amount: '6' } },
    },
  ])
  // Nothing is taken off an order that is over, and that is none of its differences.
  expect(compareOrders(was, stand({ quantity: '0' })).map((d) => d.what)).toEqual(['quantity'])
})
