import { describe, expect, test } from 'vitest'
import type { ReadRow } from '#core/requisition/line-table'
import type { DraftFacts } from '#core/requisition/draft-facts'
import type { ItemFound } from '#shared/contract/catalogue'
import type { SourceLine } from '#shared/contract/regulars'
import { linesOfRows, linesOfSource } from './many-lines'
import { freeLine, lineForItem, lineFromSource, reprice } from './new-line'
import type { EditableLine } from './editable-draft'

const budget = (id: string, account: string) => [id, { id, account }] as const
const TAXES = new Map([
  ['S', { name: 'Standard', category: 'S', rate: '19' }],
  ['Z', { name: 'None', category: 'Z', rate: '0' }],
])
const facts = (...lines: (readonly [string, { id: string; account: string }])[]) =>
  ({ baseCurrency: 'EUR', budgetLines: new Map(lines), taxCodes: TAXES }) as unknown as DraftFacts
const BOTH = facts(budget('pumps', '610'), budget('waste', '616'))
const item = (change: Partial<ItemFound> = {}): ItemFound =>
  ({
    id: 'i1',
    number: 'HC-0001',
    name: 'Quartz sleeve',
    description: '',
    categoryId: 'c',
    category: 'Ozone parts',
    accountCode: '610',
    supplierId: 's',
    supplier: 'Corrigan Pumps',
    supplierPart: 'CP-QS-25',
    unit: 'H87',
    priceBase: '1',
    currency: 'EUR',
    taxCode: 'S',
    leadDays: 5,
    hasAgreement: true,
    packSize: null,
    bought: 0,
    prices: [
      { from: '1', unitPrice: '31.50', validFrom: null, validUntil: null },
      { from: '10', unitPrice: '28.90', validFrom: null, validUntil: null },
    ],
    ...change,
  }) as ItemFound
const typed = (words: string, quantity: string | null = null, price: string | null = null) => ({
  words,
  quantity,
  price,
})
const TODAY = '2026-11-25'

describe('what pays for a new line', () => {
  test('the account of its category, where this department has it', () => {
    expect(lineForItem(item(), '1', undefined, BOTH, TODAY).codings).toEqual([{ budgetLineId: 'pumps', value: null }])
    const above = freeLine(typed('lamps'), undefined, facts(budget('waste', '616')))
    expect(lineForItem(item(), '1', above, BOTH, TODAY).codings).toEqual([{ budgetLineId: 'pumps', value: null }])
  })
  test('else the coding of the line above, copied, so that changing one never changes the other', () => {
    const above: EditableLine = {
      ...freeLine(typed('lamps'), undefined, BOTH),
      splitMethod: 'amount',
      codings: [
        { budgetLineId: 'pumps', value: '870' },
        { budgetLineId: 'waste', value: null },
      ],
    }
    const below = freeLine(typed('old lamps'), above, BOTH)
    expect([below.splitMethod, below.codings]).toEqual(['amount', above.codings])
    expect(below.codings).not.toBe(above.codings)
    expect(below.codings[0]).not.toBe(above.codings[0])
    expect(lineForItem(item({ accountCode: '999' }), '1', above, BOTH, TODAY)).toMatchObject({
      splitMethod: 'amount',
      codings: above.codings,
    })
  })
  test('the only budget line there is; with several and nothing to go by, nothing', () => {
    expect(freeLine(typed('lamps'), undefined, facts(budget('pumps', '610'))).codings).toEqual([
      { budgetLineId: 'pumps', value: null },
    ])
    expect([
      freeLine(typed('lamps'), undefined, BOTH).codings,
      freeLine(typed('lamps'), undefined, facts()).codings,
    ]).toEqual([[], []])
  })
  test('a job is carried down too', () => {
    expect(freeLine(typed('lamps'), { ...freeLine(typed('a'), undefined, BOTH), jobId: 'j' }, BOTH).jobId).toBe('j')
  })
})

describe('a catalogue item as a line', () => {
  test('brings everything that the catalogue knows, at the price its quantity reaches', () => {
    expect(lineForItem(item(), '10', undefined, BOTH, TODAY)).toMatchObject({
      itemId: 'i1',
      categoryId: 'c',
      description: 'Quartz sleeve',
      quantity: '10',
      unit: 'H87',
      unitPrice: '28.90',
      listPrice: '28.90',
      priceBase: '1',
      currency: 'EUR',
      taxCode: 'S',
      supplierId: 's',
      supplierPart: 'CP-QS-25',
    })
    expect(lineForItem(item({ prices: [] }), '1', undefined, BOTH, TODAY)).toMatchObject({
      unitPrice: null,
      listPrice: null,
    })
  })
  test('follows its price breaks while its price is the catalogue’s; a price by hand stays beside it', () => {
    const line = lineForItem(item(), '1', undefined, BOTH, TODAY)
    line.quantity = '12'
    reprice(line, item().prices, TODAY)
    expect([line.unitPrice, line.listPrice]).toEqual(['28.90', '28.90'])
    line.unitPrice = '27'
    line.quantity = '2'
    reprice(line, item().prices, TODAY)
    expect([line.unitPrice, line.listPrice]).toEqual(['27', '31.50'])
  })
  test('has an id of its own each time', () => {
    expect(lineForItem(item(), '1', undefined, BOTH, TODAY).id).not.toBe(
      lineForItem(item(), '1', undefined, BOTH, TODAY).id,
    )
  })
})

describe('many lines at once', () => {
  const making = {
    above: undefined,
    facts: BOTH,
    forItem: (found: ItemFound, quantity: string, above: EditableLine | undefined) =>
      lineForItem(found, quantity, above, BOTH, TODAY),
  }
  const row = (part: string | null, description: string, change: Partial<ReadRow> = {}): ReadRow => ({
    at: 1,
    part,
    description,
    quantity: '2',
    unit: null,
    price: null,
    payer: null,
    supplier: '',
    supplierId: null,
    needBy: null,
    reasons: [],
    ...change,
  })
  test(
    'rows of a table become items by number, whatever its case, and all else lines of one’s own that keep ' +
      'what they said',
    async () => {
      const asked: (readonly string[])[] = []
      const lines = await linesOfRows(
        [
          row('cp-qs-25', 'sleeve'),
          row('XX-1', ''),
          row(null, 'Rope', { unit: 'MTR', price: '4.20' }),
          row('cp-qs-25', ''),
        ],
        making,
        (numbers) => {
          asked.push(numbers)
          return Promise.resolve([item()])
        },
      )
      expect(asked).toEqual([['cp-qs-25', 'XX-1']])
      expect(lines.map((l) => [l.itemId, l.description, l.supplierPart, l.unit, l.unitPrice])).toEqual([
        ['i1', 'Quartz sleeve', 'CP-QS-25', 'H87', '31.50'],
        [null, 'XX-1', 'XX-1', 'H87', null],
        [null, 'Rope', null, 'MTR', '4.20'],
        ['i1', 'Quartz sleeve', 'CP-QS-25', 'H87', '31.50'],
      ])
      // Coding is carried down from the item above.
      expect(lines.map((l) => l.codings.map((c) => c.budgetLineId))).toEqual([
        ['pumps'],
        ['pumps'],
        ['pumps'],
        ['pumps'],
      ])
    },
  )
  test('what pays, who delivers and by when is kept, and what pays carries down from there', async () => {
    const payer: ReadRow['payer'] = {
      splitMethod: 'percent',
      codings: [
        { budgetLineId: 'a', value: '60' },
        { budgetLineId: 'b', value: '40' },
      ],
    }
    const lines = await linesOfRows(
      [row(null, 'Hoist', { payer, supplierId: 's', needBy: '2026-12-24' }), row(null, 'Rope')],
      making,
      () => Promise.resolve([]),
    )
    expect(lines.map((l) => [l.codings, l.supplierId, l.needBy])).toEqual([
      [payer.codings, 's', '2026-12-24'],
      [payer.codings, null, null],
    ])
    // Changing one never changes the other.
    expect(lines[0]?.codings[0]).not.toBe(lines[1]?.codings[0])
  })
  test('nothing is looked up where no row has a number', async () => {
    const lines = await linesOfRows([row(null, 'Rope')], making, () => {
      throw new Error('looked up')
    })
    expect(lines.map((l) => l.description)).toEqual(['Rope'])
  })
  test(
    'lines of a source come at today’s price where the item is still there, else as they were, paid by their ' +
      'account',
    () => {
      const line = (change: Partial<SourceLine>): SourceLine => ({
        itemId: null,
        description: 'Lodging',
        secondDescription: 'two nights',
        quantity: '2',
        unit: 'E48',
        unitPrice: '92',
        priceBase: '1',
        currency: 'EUR',
        taxCode: 'S',
        supplierId: null,
        supplierPart: null,
        categoryId: null,
        account: '616',
        note: '',
        ...change,
      })
      const made = linesOfSource(
        [
          line({ itemId: 'i1', unitPrice: '12' }),
          line({}),
          line({ itemId: 'gone', description: 'Lamp of old', unitPrice: '7' }),
        ],
        [item()],
        making,
      )
      expect(
        made.map((l) => [l.itemId, l.description, l.secondDescription, l.unitPrice, l.codings[0]?.budgetLineId]),
      ).toEqual([
        ['i1', 'Quartz sleeve', '', '31.50', 'pumps'],
        [null, 'Lodging', 'two nights', '92', 'waste'],
        [null, 'Lamp of old', 'two nights', '7', 'waste'],
      ])
      expect(lineFromSource(line({}), undefined, BOTH)).toMatchObject({
        splitMethod: 'percent',
        noteInternal: '',
        own: {},
      })
    },
  )
})
