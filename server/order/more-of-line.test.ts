import { expect, test } from 'vitest'
import { keptAdjustments, moreOf } from './more-of-line'

test('what an order says below a line: more about it, what is taken off, what the askers wrote', () => {
  expect(
    moreOf(
      {
        secondDescription: 'blue',
        notes: ['call first', 'by ship'],
        adjustments: [{ kind: 'allowance', percent: '2.5' }],
      },
      'EUR',
    ),
  ).toEqual(['blue', 'less 2.5 %', 'call first', 'by ship'])
  expect(
    moreOf(
      { secondDescription: '', notes: [], adjustments: [{ kind: 'allowance', amount: '0.33333333333333333333' }] },
      'EUR',
    ),
  ).toEqual(['less 0.33'])
  expect(
    moreOf({ secondDescription: ' ', notes: [''], adjustments: [{ kind: 'allowance', amount: '0' }] }, 'JPY'),
  ).toEqual([])
})

test('what is kept of a discount is what was taken off', () => {
  expect(keptAdjustments({ discountPercent: '5', discountAmount: null })).toEqual([{ kind: 'allowance', percent: '5' }])
  expect(keptAdjustments({ discountPercent: null, discountAmount: '1.5' })).toEqual([
    { kind: 'allowance', amount: '1.5' },
  ])
  expect(keptAdjustments({ discountPercent: null, discountAmount: null })).toEqual([])
})
