import { describe, expect, test } from 'vitest'
import type { RequisitionState } from '#core/requisition/moves'
import { estimateOf, orderedOf, partProgress } from './part'

const line = (state: RequisitionState, quantity: string, ordered = '0', cancelled = '0') => ({
  state,
  quantity,
  ordered,
  cancelled,
})

describe('how far a part is', () => {
  test.each([
    ['nothing asked', [], ['0', '0', '0', '10']],
    ['on a draft', [line('draft', '4')], ['4', '0', '0', '6']],
    ['sent back counts as written down', [line('sent back', '4')], ['4', '0', '0', '6']],
    ['sent', [line('in approval', '4')], ['0', '4', '0', '6']],
    ['partly ordered', [line('part ordered', '10', '3')], ['0', '10', '3', '0']],
    ['the rest was cancelled', [line('part ordered', '10', '3', '7')], ['0', '3', '3', '7']],
    ['rejected is open again', [line('rejected', '10')], ['0', '0', '0', '10']],
    ['cancelled after some were ordered', [line('cancelled', '10', '2', '8')], ['0', '2', '2', '8']],
    ['more than was planned', [line('approved', '12')], ['0', '12', '0', '0']],
    ['in two requests', [line('ordered', '6', '6'), line('draft', '1.5')], ['1.5', '6', '6', '2.5']],
  ])('%s', (_, lines, [drafted, asked, ordered, open]) => {
    expect(partProgress('10', lines)).toEqual({ drafted, asked, ordered, open })
  })
})

test('the estimate rounds each part as a line, and what nobody knows is nothing', () => {
  const parts = [
    { quantity: '3', estimate: '0.335' },
    { quantity: '2', estimate: null },
    { quantity: '1', estimate: '100' },
  ]
  expect(estimateOf(parts, 'EUR')).toEqual({ amount: '101.01', currency: 'EUR' })
  expect(estimateOf([], 'EUR')).toEqual({ amount: '0.00', currency: 'EUR' })
})

test('what was ordered is told in the base currency', () => {
  const of = (currency: string, perBase: string) => ({
    quantity: '2',
    unitPrice: '50',
    priceBase: '1',
    currency,
    perBase,
  })
  expect(orderedOf([of('EUR', '1'), of('DKK', '7.46')], 'EUR')).toEqual({ amount: '113.40', currency: 'EUR' })
})
