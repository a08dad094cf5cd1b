import { expect, test } from 'vitest'
import { money } from '#core/base/money'
import { shareOfOrder } from './share'

test('each requisition has its own share of a merged order, and the shares add up to it', () => {
  const lines = [
    {
      net: money('100.00 EUR'),
      borne: money('0.00 EUR'),
      sources: ['a', 'b', 'c'].map((requisitionId) => ({ requisitionId, quantity: '1' })),
    },
    { net: money('45.30 EUR'), borne: money('0.00 EUR'), sources: [{ requisitionId: 'b', quantity: '3' }] },
  ]
  expect(['a', 'b', 'c', 'd'].map((id) => shareOfOrder(lines, id, 'EUR').amount)).toEqual([
    '33.34',
    '78.63',
    '33.33',
    '0.00',
  ])
})

test('freight and what is put on an order go with the line that bears it, in the same shares', () => {
  const sources = ['a', 'b', 'c'].map((requisitionId) => ({ requisitionId, quantity: '1' }))
  const lines = [{ net: money('90.00 EUR'), borne: money('10.00 EUR'), sources }]
  expect(['a', 'b', 'c'].map((id) => shareOfOrder(lines, id, 'EUR').amount)).toEqual(['33.34', '33.33', '33.33'])
})
