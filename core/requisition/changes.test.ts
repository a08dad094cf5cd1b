import { expect, test } from 'vitest'
import { changesBetween } from './changes'
import { BLANK_DRAFT, BLANK_LINE, type Draft, type DraftLine } from './draft'

const line = (id: string, change: Partial<DraftLine> = {}): DraftLine => ({
  ...BLANK_LINE,
  id,
  description: `Thing ${id}`,
  quantity: '7',
  unitPrice: '31.5',
  codings: [{ budgetLineId: 'pumps', value: null }],
  ...change,
})
const draft = (change: Partial<Draft> = {}): Draft => ({ ...BLANK_DRAFT, lines: [line('a'), line('b')], ...change })

test('nothing changed is nothing said, whatever was read or left blank meanwhile', () => {
  expect(changesBetween(draft(), draft({ readWarnings: ['x'], own: { f: '' }, title: ' ' }))).toEqual([])
})

test('quantities and prices say from what to what', () => {
  const now = draft({ lines: [line('a', { quantity: '5', unitPrice: '30' }), line('b')] })
  expect(changesBetween(draft(), now)).toEqual([
    { code: 'quantity', what: 'Thing a', unit: 'H87', from: '7', to: '5' },
    { code: 'price', what: 'Thing a', currency: 'EUR', from: '31.5', to: '30' },
  ])
})

test('lines that came and went, and what else a line says otherwise', () => {
  const now = draft({
    lines: [
      line('c'),
      line('a', {
        supplierPart: 'X-9',
        splitMethod: 'share',
        codings: [
          { budgetLineId: 'pumps', value: null },
          { budgetLineId: 'waste', value: null },
        ],
      }),
    ],
  })
  expect(changesBetween(draft(), now)).toEqual([
    { code: 'line-added', what: 'Thing c' },
    { code: 'line-otherwise', what: 'Thing a', parts: ['part number', 'who pays'] },
    { code: 'line-removed', what: 'Thing b' },
  ])
})

test('the whole: the day by itself, all else by its name', () => {
  expect(changesBetween(draft(), draft({ needBy: '2026-12-11', why: 'they leak', attention: 'Wes Okafor' }))).toEqual([
    { code: 'need-by', from: null, to: '2026-12-11' },
    { code: 'otherwise', parts: ['reason', 'place'] },
  ])
})
