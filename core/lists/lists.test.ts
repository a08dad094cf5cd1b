import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { LISTS } from './definitions'
import { LIST_NAMES, keyOf, type ListName, type Values } from './list'
import { isSound, planRows, retired, unnamed } from './plan'
import { lackingColumns, readRows, recogniseColumns, type KnownEntries } from './read-rows'
import { writeRows } from './write-rows'

const TODAY = '2026-11-27'
const WAYS = { mark: '.', monthFirst: false, today: TODAY } as const
const KNOWN: KnownEntries = {
  places: new Map([['goods yard', 'Goods yard']]),
  departments: new Map([
    ['610', '610'],
    ['1', '1'],
    ['water', '610'],
  ]),
  accounts: new Map([['4100', '4100']]),
}
const read = (name: ListName, head: string, ...rows: string[]) => {
  const columns = recogniseColumns(LISTS[name], head.split('|'))
  return readRows(
    LISTS[name],
    columns,
    rows.map((r) => r.split('|')),
    WAYS,
    KNOWN,
  )
}
const plan = (name: ListName, current: Values[], head: string, ...rows: string[]) =>
  planRows(LISTS[name], read(name, head, ...rows), current, TODAY)

describe('headings', () => {
  test('are recognised by their names, by what else they are called, and once each', () => {
    expect(
      recogniseColumns(LISTS.people, ['E-Mail:', 'Full name', 'Cost centre', 'Reports to', 'Shoe size', 'email']),
    ).toEqual(['email', 'name', 'department', 'manager', null, null])
    expect(recogniseColumns(LISTS.accounts, ['Name', 'Account'])).toEqual(['name', 'code'])
    expect(recogniseColumns(LISTS['budget-lines'], ['Account', 'Account code', 'Name'])).toEqual([
      'account',
      null,
      'name',
    ])
  })
  test('what a new entry cannot do without is told', () => {
    expect(lackingColumns(LISTS.accounts, ['code', null]).map((c) => c.key)).toEqual(['name'])
  })
  test('no two columns of a list are called the same', () => {
    for (const name of LIST_NAMES) {
      const all = LISTS[name].columns.map((c) => c.name.toLowerCase())
      expect(new Set(all).size, name).toBe(all.length)
      expect(recogniseColumns(LISTS[name], writeRows(LISTS[name], [], '.').head)).toEqual(
        LISTS[name].columns.map((c) => c.key),
      )
    }
  })
})

describe('a row', () => {
  test('is read as people write it', () => {
    const [row] = read(
      'people',
      'Email|Name|Department|Roles|Own limit|Last day|Also for',
      ' Ida.Berg@X.example | Ida  Berg|water|Finance; buyer|EUR 1,250.50|31 Dec 2026|610, Water',
    )
    expect(row).toEqual({
      at: 2,
      values: {
        email: 'ida.berg@x.example',
        name: 'Ida Berg',
        department: '610',
        roles: 'buyer, finance',
        ownLimit: '1250.5',
        leftOn: '2026-12-31',
        alsoFor: '610',
      },
      reasons: [],
    })
  })
  test.each([
    ['accounts', 'Code|Name', '4100|', { code: 'missing', column: 'name' }],
    ['people', 'Email|Name|Department', 'ida@x|Ida|610', { code: 'no-mail', column: 'email', text: 'ida@x' }],
    ['people', 'Email|Name|Department', 'i@x.example|Ida|999', { code: 'unknown', column: 'department', text: '999' }],
    ['people', 'Email|Name|Department|Role', 'i@x.example|Ida|610|boss', { code: 'no-choice', text: 'boss' }],
    ['people', 'Email|Name|Department|Own limit', 'i@x.example|Ida|610|much', { code: 'no-number', text: 'much' }],
    ['people', 'Email|Name|Department|Own limit', 'i@x.example|Ida|610|-1', { code: 'beyond', least: '0' }],
    ['people', 'Email|Name|Department|Last day', 'i@x.example|Ida|610|31.2.2027', { code: 'no-day' }],
    ['departments', 'Code|Name|Reclaimable', '1|A|12.345', { code: 'decimals', decimals: 2 }],
    ['suppliers', 'Number|Name|Currency', '1|A|Euro', { code: 'no-currency', text: 'Euro' }],
    ['suppliers', 'Number|Name|Currency|VAT', '1|A|EUR|DE136695975', { code: 'check-digit', text: 'DE136695975' }],
    ['taxes', 'Code|Name|Rate|Kind of tax', 'S|Standard|19|plain', { code: 'no-choice', text: 'plain' }],
    ['rates', 'Day|Currency|Rate', '2026-11-27|GBP|0', { code: 'beyond' }],
    ['items', 'Part|Prices', 'P-1|4.20; 10: cheap', { code: 'no-steps', text: '4.20; 10: cheap' }],
    ['items', 'Part|Unit', 'P-1|bucket', { code: 'no-unit', text: 'bucket' }],
    ['places', 'Name|Street|Town|Country', `${'x'.repeat(101)}|S|T|C`, { code: 'too-long', most: 100 }],
  ] as const)('of %s under %s: %s', (name, head, row, reason) => {
    expect(read(name, head, row)[0]?.reasons).toMatchObject([reason])
  })
  test('without a word is left out; the same key twice is refused, with the row that has it', () => {
    expect(read('accounts', 'Code|Name', '4100|A', '|', 'x|B', 'X|C').map((r) => [r.at, r.reasons])).toEqual([
      [2, []],
      [4, []],
      [5, [{ code: 'twice', row: 4 }]],
    ])
  })
  test('may name an entry that the file itself brings, by its key or its name', () => {
    const rows = read('departments', 'Code|Name|Part of', '1|Trust|', '2|Shop|trust', '3|Cellar|2')
    expect(rows.map((r) => r.values.parent)).toEqual(['', '1', '2'])
  })
  test('what an apostrophe kept from being a formula loses it again', () => {
    expect(read('suppliers', 'Number|Name|Currency|Phone', "1|A|EUR|'+49 40 1234")[0]?.values.telephone).toBe(
      '+49 40 1234',
    )
  })
})

describe('a plan', () => {
  const old = { code: '4100', name: 'Pumps', retired: 'no' }
  test('tells new, changed, unchanged and gone apart', () => {
    const p = plan(
      'accounts',
      [old, { code: '4200', name: 'Salt', retired: 'no' }],
      'Code|Name',
      '4100|Pump parts',
      '5|New',
    )
    expect(p.rows.map((r) => [r.does, r.changed])).toEqual([
      ['changes', ['name']],
      ['adds', ['code', 'name']],
    ])
    expect(p.rows[1]?.after).toEqual({ code: '5', name: 'New', retired: 'no' })
    const salt = { code: '4200', name: 'Salt', retired: 'no' }
    const all = [old, salt].map((values) => ({ values }))
    expect(unnamed(LISTS.accounts, all, new Set(['4100', '5']), TODAY)).toEqual([{ values: salt }])
    expect(plan('accounts', [old], 'Code|Name', '4100|Pumps').rows[0]?.does).toBe('nothing')
  })
  test('a column that the file has not stays; one that is empty in it is emptied', () => {
    const it = { costCentre: '1', name: 'A', parent: '', reclaimable: '50', usualPlace: 'Goods yard', retired: 'no' }
    const p = plan('departments', [it], 'Code|Usual place', '1|')
    expect(p.rows[0]).toMatchObject({
      does: 'changes',
      changed: ['usualPlace'],
      after: { name: 'A', reclaimable: '50' },
    })
  })
  test('what is new needs all that has to be said', () => {
    expect(plan('accounts', [old], 'Code', '4100', '9').rows.map((r) => [r.does, r.reasons])).toEqual([
      ['nothing', []],
      ['refused', [{ code: 'missing', column: 'name' }]],
    ])
  })
  test('a circle is refused wherever it is closed, also through entries that the file does not name', () => {
    const above = { costCentre: '1', name: 'A', parent: '2', reclaimable: '0', usualPlace: '', retired: 'no' }
    const p = plan('departments', [above], 'Code|Name|Part of', '2|B|3', '3|C|1', '4|D|2')
    expect(p.rows.map((r) => r.does)).toEqual(['refused', 'refused', 'adds'])
    expect(isSound(p)).toBe(false)
    expect(plan('departments', [above], 'Code|Part of', '1|1').rows[0]?.reasons).toEqual([
      { code: 'circle', column: 'parent', text: '1' },
    ])
  })
  test('only what is taxed has a rate: an entry is looked at as a whole', () => {
    const rows = ['S|Standard|0|taxed', 'Z|None|19|at zero', 'R|Reduced|7|taxed', 'E|Exempt|0|exempt']
    expect(plan('taxes', [], 'Code|Name|Rate|Kind of tax', ...rows).rows.map((r) => r.reasons[0]?.code)).toEqual([
      'taxed-at-nothing',
      'untaxed-at-a-rate',
      undefined,
      undefined,
    ])
    // A row that says only the rate is judged with what the entry says already.
    const old = { code: 'Z', name: 'None', rate: '0', category: 'at zero', retired: 'no' }
    expect(plan('taxes', [old], 'Code|Rate', 'Z|5').rows[0]?.reasons).toEqual([{ code: 'untaxed-at-a-rate' }])
  })
  test('rates of a day are nothing to retire: what a file does not name stays', () => {
    const old = { day: '2026-11-26', currency: 'GBP', rate: '0.85' }
    expect(unnamed(LISTS.rates, [{ values: old }], new Set(), TODAY)).toEqual([])
    expect(plan('rates', [old], 'Day|Currency|Rate', '2026-11-27|GBP|0.00012345').rows[0]?.after.rate).toBe(
      '0.00012345',
    )
  })
  describe('of a price list that does not know our numbers', () => {
    const item = { number: 'I-7', supplier: '610', supplierPart: 'P-1', prices: '1: 4', retired: 'no', name: 'Seal' }
    const head = 'Supplier|Part number|Name|Price|Category|Currency|Tax'
    const rows = (...r: string[]) => {
      const columns = recogniseColumns(LISTS.items, head.split('|'))
      const known: KnownEntries = {
        suppliers: new Map([['610', '610']]),
        categories: new Map([['pumps', 'Pumps']]),
        taxes: new Map([['s', 'S']]),
      }
      const cells = r.map((x) => x.split('|'))
      return planRows(LISTS.items, readRows(LISTS.items, columns, cells, WAYS, known), [item], TODAY).rows
    }
    test('an item is found by its supplier and their number, and keeps its own', () => {
      const [row] = rows('610|p-1|Seal|5.00; 10: 4.50|Pumps|EUR|S')
      expect([row?.does, row?.after.number, row?.after.prices]).toEqual(['changes', 'I-7', '1: 5; 10: 4.5'])
    })
    test('a new one is called by both; one that is named twice is refused, with the row that has it', () => {
      const [fresh, again, lacking] = rows(
        '610|P-2|New|1|Pumps|EUR|S',
        '610|P-2|New|2|Pumps|EUR|S',
        '610||x|1|Pumps|EUR|S',
      )
      expect([fresh?.does, fresh?.after.number]).toEqual(['adds', '610-P-2'])
      expect(again?.reasons).toEqual([{ code: 'twice', row: 2 }])
      expect(lacking?.reasons).toContainEqual({ code: 'missing', column: 'supplierPart' })
    })
  })
  test('an item that would follow itself is refused, through others too', () => {
    const item = (number: string, successor: string) => ({
      ...{ number, successor, sameAs: '', supplier: '610', supplierPart: number, prices: '', retired: 'no' },
    })
    const columns = recogniseColumns(LISTS.items, ['Item', 'Successor'])
    const known: KnownEntries = { items: new Map(['a', 'b'].map((k) => [k, k])) }
    const rows = readRows(LISTS.items, columns, [['b', 'a']], WAYS, known)
    expect(planRows(LISTS.items, rows, [item('a', 'b'), item('b', '')], TODAY).rows[0]?.reasons).toEqual([
      { code: 'circle', column: 'successor', text: 'a' },
    ])
  })
  test('what is retired already is not gone; retiring is a change of one column', () => {
    const away = retired(LISTS.accounts, old, TODAY)
    expect(unnamed(LISTS.accounts, [{ values: away }, { values: old }], new Set(), TODAY)).toEqual([{ values: old }])
    expect(retired(LISTS.suppliers, { standing: 'active' }, TODAY)).toEqual({ standing: 'on hold' })
  })
})

/** Texts as they stand in a list: read once already. */
const words = fc.string({ minLength: 1, maxLength: 20 }).map(
  (t) =>
    t
      .replace(/\s+/g, ' ')
      .replace(/^[' ]+/, '')
      .trim() || 'x',
)
test('what is written is read back unchanged, whatever the mark of decimals', () => {
  const amount = fc.oneof(
    fc.constant(''),
    fc.integer({ min: 0, max: 99_999_999 }).map((n) => dec4(n)),
  )
  const person = fc.record({
    email: fc.nat(9999).map((n) => `p${n}@x.example`),
    name: words,
    own: amount,
    deciding: amount,
  })
  fc.assert(
    fc.property(fc.uniqueArray(person, { selector: (p) => p.email }), fc.constantFrom('.', ','), (people, mark) => {
      const entries = people.map(({ own, deciding, ...p }) => ({
        ...p,
        jobTitle: '',
        department: '610',
        alsoFor: '610',
        manager: people[0]?.email === p.email ? '' : (people[0]?.email ?? ''),
        roles: 'buyer, finance',
        ownLimit: own,
        decidingLimit: deciding,
        orderingLimit: '',
        usualPlace: '',
        language: 'Germany',
        leftOn: '2026-12-31',
      }))
      const { head, rows } = writeRows(LISTS.people, entries, mark)
      const cells = rows.map((r) => r.map((c) => (typeof c === 'string' ? c : c.decimal)))
      const back = readRows(LISTS.people, recogniseColumns(LISTS.people, head), cells, { ...WAYS, mark }, KNOWN)
      const p = planRows(LISTS.people, back, entries, TODAY)
      expect(p.rows.map((r) => r.does)).toEqual(entries.map(() => 'nothing'))
      expect(back.map((r) => keyOf(LISTS.people, r.values))).toEqual(entries.map((e) => e.email))
    }),
  )
})
const dec4 = (n: number) => String(n / 10_000)
