import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { readTable, recogniseTable, writeTable, type LineTable, type ReadWith } from './line-table'
import { writePayer } from './typed-payer'

const cells = (text: string) => text.split('\n').map((r) => r.split('\t'))
const PAYERS = [
  { id: 'f', code: '4100-610', name: 'Filters', account: '610', project: null },
  { id: 's', code: '4100-620', name: 'Salt', account: '620', project: null },
]
const WITH: ReadWith = {
  mark: '.',
  monthFirst: false,
  today: '2026-11-26',
  room: 500,
  payers: PAYERS,
  suppliers: new Map([
    ['Corrigan Pumps', 'c'],
    ['Nobody & Sons', null],
  ]),
}
const read = (text: string, room = 500, mark: '.' | ',' = '.') => {
  const rows = cells(text)
  const table = recogniseTable(rows, mark, PAYERS)
  return { table, rows: readTable(rows, table, { ...WITH, mark, room }) }
}

describe('columns are recognised', () => {
  // What people call their columns: common practice, no source.
  test.each([
    ['Description\tQty\tUnit price', ['description', 'quantity', 'price']],
    ['Part no.\tItem\tQuantity\tUoM\tPrice each', ['part', 'description', 'quantity', 'unit', 'price']],
    ['SKU\tProduct\tHow many\tRemark', ['part', 'description', 'quantity', 'nothing']],
    ['Article number\tArticle\tPieces\tNet price', ['part', 'description', 'quantity', 'price']],
    ['Order code\tWhat\tQty\tQty', ['part', 'description', 'quantity', 'nothing']],
    ['What\tAccount\tSupplier\tNeeded by', ['description', 'payer', 'supplier', 'needBy']],
    ['Supplier part no.\tVendor name\tCost centre\tDelivery date', ['part', 'supplier', 'payer', 'needBy']],
    ['Item\tQty needed\tBudget line\tDate', ['description', 'quantity', 'payer', 'needBy']],
  ])('by their names: %s', (head, columns) => {
    expect(recogniseTable(cells(`${head}\na\tb\tc\td`), '.')).toEqual({
      head: true,
      columns: expect.arrayContaining(columns) as unknown,
    })
    expect(recogniseTable(cells(`${head}\na\tb\tc\td`), '.').columns.slice(0, columns.length)).toEqual(columns)
  })
  test.each<[string, LineTable['columns']]>([
    ['6\tQuartz sleeve\t31.50\n2\tLamp base, bronze\t18', ['quantity', 'description', 'price']],
    ['Quartz sleeve\t6\neach thing\t2', ['description', 'quantity']],
    [
      'CP-QS-25\tQuartz sleeve, open end\t6\teach\t31.50\nST-HC-60\tHose clip, steel\t20\teach\t0.90',
      ['part', 'description', 'quantity', 'unit', 'price'],
    ],
    ['Quartz sleeve\t31.50\nLamp\t148.00', ['description', 'price']],
    [
      'Rope\t2\troll\t1420.00\t2840.00\nShackle\t4\teach\t9.50\t38.00',
      ['description', 'quantity', 'unit', 'price', 'nothing'],
    ],
    ['6\t2\n3\t4', ['nothing', 'nothing']],
    ['Hose\t2\t4100-610\t2026-12-11\nRope\t1\t4100-620\t11/12/26', ['description', 'quantity', 'payer', 'needBy']],
  ])('by what they hold: %s', (text, columns) => {
    expect(recogniseTable(cells(text), '.', PAYERS)).toEqual({ head: false, columns })
  })
  test('by what they hold, under names in another language', () => {
    expect(recogniseTable(cells('Menge\tWas\tPreis\n3\tHose\t4.20\n2\tRope\t9'), '.')).toEqual({
      head: true,
      columns: ['quantity', 'description', 'price'],
    })
  })
  test('a first row with a number in it is a line, also when it holds a known word', () => {
    expect(recogniseTable(cells('price list\t6\nhose\t2'), '.').head).toBe(false)
  })
})

describe('rows are read', () => {
  test('with a head, units in words, currency signs and sums', () => {
    const { rows } = read(
      'What\tQty\tUnit\tPrice\nSea salt\t40\tbags\t€ 18.60\nHose\t2*3\tmetres\t4.20 EUR\nLamp\t\tpcs\t',
    )
    expect(
      rows.map(({ at, description, quantity, unit, price, reasons }) => ({
        at,
        description,
        quantity,
        unit,
        price,
        reasons,
      })),
    ).toEqual([
      { at: 2, description: 'Sea salt', quantity: '40', unit: 'BG', price: '18.6', reasons: [] },
      { at: 3, description: 'Hose', quantity: '6', unit: 'MTR', price: '4.2', reasons: [] },
      { at: 4, description: 'Lamp', quantity: '1', unit: 'H87', price: null, reasons: [] },
    ])
  })
  test('by the person’s own decimal mark', () => {
    expect(read('What\tQty\tPrice\nHose\t1.000\t1.234,50', 500, ',').rows[0]).toMatchObject({
      quantity: '1000',
      price: '1234.5',
    })
    expect(read('What\tQty\tPrice\nHose\t1,000\t1,234.50').rows[0]).toMatchObject({ quantity: '1000', price: '1234.5' })
  })
  test('one column is read like the add field', () => {
    expect(read('6 quartz sleeve\ntake away old lamps 140').rows).toMatchObject([
      { description: 'quartz sleeve', quantity: '6', price: null },
      { description: 'take away old lamps', quantity: '1', price: '140' },
    ])
  })
  test('with what pays, who delivers and by when', () => {
    const { rows } = read(
      [
        'What\tAccount\tSupplier\tNeeded by',
        'Hose\t610\tCorrigan Pumps\tfri',
        'Rope\t610 60; salt\tNot asked yet\t11 Dec',
        'Twine\t\t\t',
      ].join('\n'),
    )
    expect(rows.map((r) => [r.payer?.codings, r.supplier, r.supplierId, r.needBy, r.reasons])).toEqual([
      [[{ budgetLineId: 'f', value: null }], 'Corrigan Pumps', 'c', '2026-11-27', []],
      [
        [
          { budgetLineId: 'f', value: '60' },
          { budgetLineId: 's', value: '40' },
        ],
        'Not asked yet',
        null,
        '2026-12-11',
        [],
      ],
      [undefined, '', null, null, []],
    ])
  })
  test.each([
    ['What\tPaid from\nHose\tropes', { code: 'row-payer', stops: false, text: 'ropes' }],
    ['What\tSupplier\nHose\tNobody & Sons', { code: 'row-supplier', stops: false, text: 'Nobody & Sons' }],
    ['What\tNeeded by\nHose\tsoon', { code: 'row-day', stops: false, text: 'soon' }],
    ['What\tNeeded by\nHose\t2026-11-25', { code: 'row-day', stops: false, text: '2026-11-25' }],
    ['What\tQty\nHose\tmany', { code: 'row-quantity', stops: true, text: 'many' }],
    ['What\tQty\nHose\t-3', { code: 'row-quantity', stops: true, text: '-3' }],
    ['What\tQty\nHose\t0', { code: 'row-quantity', stops: true, text: '0' }],
    ['What\tQty\n\t3', { code: 'row-no-words', stops: true }],
    ['What\tQty\tPrice\nHose\t3\task', { code: 'row-price', stops: false, text: 'ask' }],
    ['What\tQty\tPrice\nHose\t3\t-2', { code: 'row-price', stops: false, text: '-2' }],
    ['What\tQty\tUnit\nHose\t3\tfurlong', { code: 'row-unit', stops: false, text: 'furlong' }],
    [`What\tQty\n${'long '.repeat(100)}\t3`, { code: 'row-too-long', stops: true }],
  ])('and what is wrong with one is said: %s', (text, reason) => {
    expect(read(text).rows[0]?.reasons).toEqual([reason])
  })
  test('a formula loses its sign and is said to have been one', () => {
    expect(read('What\tQty\n=cmd|calc!A1\t1').rows[0]).toMatchObject({
      description: 'cmd|calc!A1',
      reasons: [{ code: 'row-formula' }],
    })
  })
  test('empty rows are left out, and rows keep their place in the range', () => {
    expect(read('What\tQty\n\t\nHose\t1\n\t\nLamp\t2').rows.map((r) => r.at)).toEqual([3, 5])
  })
  test('what finds no room is said, row by row; rows that cannot be taken use none up', () => {
    const { rows } = read('What\tQty\nA\t1\nB\tno\nC\t1\nD\t1', 2)
    expect(rows.map((r) => r.reasons.map((x) => x.code))).toEqual([[], ['row-quantity'], [], ['row-no-room']])
  })
})

test('what is written out is read back the same (property)', () => {
  const line = fc.record({
    description: fc.stringMatching(/^[a-z][a-z ]{0,30}[a-z]$/).map((s) => s.replace(/ +/g, ' ')),
    supplierPart: fc.option(fc.stringMatching(/^[A-Z]{2}-\d{1,5}$/), { nil: null }),
    quantity: fc.integer({ min: 1, max: 99_999 }).map(String),
    unit: fc.constantFrom('H87', 'KGM', 'BX', 'RO', 'E48'),
    unitPrice: fc.option(
      fc.integer({ min: 0, max: 9_999_999 }).map((n) => (n / 100).toFixed(2)),
      { nil: null },
    ),
    priceBase: fc.constant('1'),
    supplier: fc.constantFrom('', 'Corrigan Pumps'),
    payer: fc.constantFrom('', '4100-610', '4100-620; 4100-610', '4100-610 12.5%; 4100-620 87.5%'),
    needBy: fc.constantFrom(null, '2026-12-24'),
  })
  fc.assert(
    fc.property(fc.array(line, { minLength: 1, maxLength: 30 }), (lines) => {
      const rows = writeTable(lines)
      const back = readTable(rows, recogniseTable(rows, '.'), WITH)
      expect(
        back.map((b) => [
          b.description,
          b.part,
          b.quantity,
          b.unit,
          b.price === null ? null : Number(b.price),
          b.supplier,
          b.payer === null ? '' : writePayer(b.payer, PAYERS),
          b.needBy,
        ]),
      ).toEqual(
        lines.map((l) => [
          l.description,
          l.supplierPart,
          l.quantity,
          l.unit,
          l.unitPrice === null ? null : Number(l.unitPrice),
          l.supplier,
          l.payer,
          l.needBy,
        ]),
      )
      expect(back.every((b) => b.reasons.length === 0)).toBe(true)
    }),
  )
})
