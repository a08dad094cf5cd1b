import { describe, expect, test } from 'vitest'
import { BLANK_DRAFT, BLANK_LINE, type DraftLine } from './draft'
import { checkLine } from './missing'
import type { DraftFacts } from './draft-facts'
import type { OwnField } from './own-field'

const field = (id: string, change: Partial<OwnField>): OwnField => ({
  id,
  name: id,
  help: '',
  on: 'line',
  type: 'text',
  required: false,
  kinds: [],
  departmentIds: [],
  categoryIds: [],
  choices: [],
  ...change,
})
const supplier = (
  id: string,
  warningMode: 'informs' | 'must be read' | 'stops',
  standing: 'active' | 'on hold' = 'active',
) => ({ id, name: id, standing, leadDays: 0, warning: 'mind the step', warningMode })
const FACTS = {
  taxCodes: new Map([
    ['S', { name: 'Standard', category: 'S', rate: '19' }],
    ['Z', { name: 'None', category: 'Z', rate: '0' }],
  ]),
  perBase: new Map([
    ['EUR', '1'],
    ['GBP', '0.85'],
  ]),
  jobs: new Map([['j', {}]]),
  items: new Map(),
  agreements: [],
  suppliers: new Map(
    [
      supplier('tells', 'informs'),
      supplier('reads', 'must be read'),
      supplier('never', 'stops'),
      supplier('held', 'informs', 'on hold'),
    ].map((s) => [s.id, s]),
  ),
  ownFields: [
    field('plate', { required: true, categoryIds: ['pumps'] }),
    field('grade', { type: 'choice', choices: ['a', 'b'], kinds: ['service'] }),
  ],
  budgetLines: new Map([
    ['p', {}],
    ['q', {}],
  ]),
} as unknown as DraftFacts
const LINE: DraftLine = {
  ...BLANK_LINE,
  id: 'l',
  description: 'Lamp',
  quantity: '6',
  unitPrice: '10',
  codings: [{ budgetLineId: 'p', value: null }],
}
const check = (change: Partial<DraftLine>, draft: Partial<typeof BLANK_DRAFT> = {}) =>
  checkLine({ ...LINE, ...change }, { ...BLANK_DRAFT, ...draft }, FACTS).map((m) => m.code)

// common practice, no source: what a line needs, each alone, at its bounds.
describe('a line lacks', () => {
  test.each<[string, Partial<DraftLine>, string[]]>([
    ['nothing when it is whole', {}, []],
    ['its words', { description: '   ' }, ['line-no-description']],
    ['a quantity above nothing', { quantity: '0' }, ['line-quantity']],
    ['a quantity that is not below nothing', { quantity: '-1' }, ['line-quantity']],
    ['nothing at the smallest quantity', { quantity: '0.000001' }, []],
    ['a quantity of at most six decimals', { quantity: '0.0000001' }, ['line-quantity']],
    ['nothing at the largest quantity', { quantity: '1000000000' }, []],
    ['a quantity within bounds', { quantity: '1000000000.1' }, ['line-quantity']],
    ['a quantity that is a number', { quantity: 'six' }, ['line-quantity']],
    ['a unit of the list', { unit: 'PACKET' }, ['line-unit']],
    ['a price', { unitPrice: null }, ['line-no-price']],
    ['nothing at a price of nothing', { unitPrice: '0' }, []],
    ['a price that is not below nothing', { unitPrice: '-0.01' }, ['line-price-range']],
    ['a price of at most six decimals', { unitPrice: '0.1234567' }, ['line-price-range']],
    ['a tax code that is there', { taxCode: 'X' }, ['line-tax']],
    ['a rate of its currency', { currency: 'NOK' }, ['line-currency']],
    ['nothing in a currency with a rate', { currency: 'GBP' }, []],
    ['a net price that follows from the one with tax', { priceWithTax: '11.90' }, []],
    [
      'a net price that follows from the one with tax, to six decimals',
      { priceWithTax: '10', unitPrice: '8.403361' },
      [],
    ],
    ['another net price than was typed', { priceWithTax: '11.91' }, ['line-price-with-tax']],
    ['nothing at all of it taken off', { discount: { of: 'percent', value: '100' } }, []],
    ['more than all of it', { discount: { of: 'percent', value: '100.01' } }, ['line-discount']],
    ['nothing at an amount of its gross', { discount: { of: 'amount', value: '60' } }, []],
    ['an amount above its gross', { discount: { of: 'amount', value: '60.01' } }, ['line-discount']],
    ['its gross counts by hundred', { priceBase: '100', discount: { of: 'amount', value: '0.61' } }, ['line-discount']],
    ['a job that is open', { jobId: 'gone' }, ['job-unknown']],
    ['nothing for an open job', { jobId: 'j' }, []],
    ['a supplier that is not on hold', { supplierId: 'held' }, ['line-supplier-blocked']],
    ['nothing where a warning only informs', { supplierId: 'tells' }, []],
    ['the reading of a warning', { supplierId: 'reads' }, ['warning-unread']],
    ['what a warning stops', { supplierId: 'never' }, ['warning-stops']],
    ['an own field of its category', { categoryId: 'pumps' }, ['own-field-missing']],
    ['nothing once that is filled in', { categoryId: 'pumps', own: { plate: 'P4' } }, []],
    ['a payer', { codings: [] }, ['line-no-coding']],
    [
      'a payer of this department and year',
      { codings: [{ budgetLineId: 'other', value: null }] },
      ['line-coding-unknown'],
    ],
    [
      'parts that add up',
      {
        codings: [
          { budgetLineId: 'p', value: '50' },
          { budgetLineId: 'q', value: '49' },
        ],
      },
      ['line-split'],
    ],
    [
      'nothing when its parts add up',
      {
        codings: [
          { budgetLineId: 'p', value: '50' },
          { budgetLineId: 'q', value: '50' },
        ],
      },
      [],
    ],
    [
      'quantities that add up to its own',
      {
        splitMethod: 'quantity',
        codings: [
          { budgetLineId: 'p', value: '2' },
          { budgetLineId: 'q', value: '3' },
        ],
      },
      ['line-split'],
    ],
    [
      'everything, said at once',
      { description: '', quantity: '0', unitPrice: null, unit: '', codings: [] },
      ['line-no-description', 'line-quantity', 'line-unit', 'line-no-price', 'line-no-coding'],
    ],
  ])('%s', (_, change, expected) => {
    expect(check(change)).toEqual(expected)
  })

  test('what only some kinds ask for, only on those', () => {
    expect([
      check({ own: { grade: 'c' } }),
      check({ own: { grade: 'c' } }, { kind: 'service' }),
      check({ own: { grade: 'b' } }, { kind: 'service' }),
    ]).toEqual([[], ['own-field-unreadable'], []])
  })
  test('a warning no more once its author has read it, and it names the field that leads there', () => {
    const [unread] = checkLine({ ...LINE, supplierId: 'reads' }, BLANK_DRAFT, FACTS)
    expect(unread).toMatchObject({ at: { line: 'l', field: 'warning' }, name: 'Lamp', text: 'mind the step' })
    expect(check({ supplierId: 'reads' }, { readWarnings: ['reads'] })).toEqual([])
  })
})
