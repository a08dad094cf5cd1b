import { expect, test } from 'vitest'
import { BLANK_DRAFT, BLANK_LINE, completeDraft } from './draft'
import { renewDraft } from './renew'

const steps = [
  { from: '1', unitPrice: '30', validFrom: null, validUntil: null },
  { from: '10', unitPrice: '27', validFrom: null, validUntil: null },
]
let n = 0
const facts = {
  today: '2026-11-25',
  prices: new Map([['lamp', steps]]),
  budgetLines: new Map([['old', 'new']]),
  newId: () => `n${(n += 1)}`,
}
const line = {
  ...BLANK_LINE,
  id: 'l',
  itemId: 'lamp',
  quantity: '12',
  unitPrice: '31',
  listPrice: '31',
  codings: [{ budgetLineId: 'old', value: null }],
}

test('a draft begins again with ids of its own, prices and budget lines of today, and nothing of that one time', () => {
  const was = {
    ...BLANK_DRAFT,
    title: 'Lamps',
    why: 'dim',
    needBy: '2025-01-01',
    accountingDate: '2025-01-02',
    overBudgetReason: 'then',
    readWarnings: ['w'],
    lines: [line],
  }
  const now = renewDraft(was, facts)
  expect(now).toMatchObject({
    title: 'Lamps',
    why: 'dim',
    needBy: null,
    accountingDate: null,
    overBudgetReason: '',
    readWarnings: [],
  })
  expect(now.lines[0]).toMatchObject({
    unitPrice: '27',
    listPrice: '27',
    codings: [{ budgetLineId: 'new', value: null }],
  })
  expect(now.lines[0]?.id).not.toBe('l')
})

test('a price written by hand, and one of a free line, stay; a payer that is gone is left out whole', () => {
  const [byHand, free, gone, past] = renewDraft(
    {
      ...BLANK_DRAFT,
      lines: [
        { ...line, unitPrice: '20' },
        { ...line, itemId: null, listPrice: null, unitPrice: '5' },
        {
          ...line,
          codings: [
            { budgetLineId: 'old', value: '50' },
            { budgetLineId: 'closed', value: '50' },
          ],
        },
        { ...line, itemId: 'no longer made' },
      ],
    },
    facts,
  ).lines
  expect(byHand).toMatchObject({ unitPrice: '20', listPrice: '27' })
  expect(free).toMatchObject({ unitPrice: '5', listPrice: null })
  expect(gone?.codings).toEqual([])
  expect(past).toMatchObject({ unitPrice: '31', listPrice: null })
})

test('what was kept before a field existed is complete when it is read', () => {
  const old = completeDraft({ kind: 'goods', title: 'Old', lines: [{ id: 'l', description: 'Lamp', quantity: '2' }] })
  expect(old).toMatchObject({ title: 'Old', address: null, own: {}, readWarnings: [], noteInternal: '' })
  expect(old.lines[0]).toMatchObject({ id: 'l', description: 'Lamp', discount: null, own: {}, secondDescription: '' })
})
