import fc from 'fast-check'
import { expect, describe, test } from 'vitest'
import { money } from '#core/base/money'
import { changesOf, checkForm, mergeForm, without, type FormFacts, type RequestForm } from './form'
import type { OwnField } from './own-field'
import type { RequestRule } from './rules'

const kind = (code: string, series = 'R') => ({ code, name: code, help: '', series })
const field = (id: string, change: Partial<OwnField> = {}): OwnField => ({
  id,
  name: id,
  help: '',
  on: 'requisition',
  type: 'text',
  required: false,
  kinds: [],
  departmentIds: [],
  categoryIds: [],
  choices: [],
  ...change,
})
const rule = (
  id: string,
  when: Partial<RequestRule['when']> = {},
  asks: RequestRule['asks'] = { what: 'justification' },
): RequestRule => ({
  id,
  name: `because of ${id}`,
  when: { from: null, kinds: [], departmentIds: [], categoryIds: [], withoutAgreement: false, ...when },
  asks,
})
const form = (change: Partial<RequestForm> = {}): RequestForm => ({
  newSuppliers: 'propose',
  kinds: [kind('goods'), kind('travel', 'T')],
  ownFields: [field('a'), field('b')],
  rules: [rule('x'), rule('y')],
  ...change,
})
const facts: FormFacts = {
  baseCurrency: 'EUR',
  departmentIds: new Set(['ws']),
  categoryIds: new Set(['pumps']),
  everFields: new Map(),
}
const codes = (change: Partial<RequestForm>, f = facts) =>
  checkForm(form(change), f).map((r) => `${r.part} ${r.at ?? '-'} ${r.code}`)

describe('a form is refused', () => {
  test('with nothing when it is sound', () => {
    expect(
      codes({
        ownFields: [
          field('a', { type: 'choice', choices: ['one', 'two'] }),
          field('c', { on: 'line', name: 'a', categoryIds: ['pumps'], kinds: ['travel'], departmentIds: ['ws'] }),
        ],
        rules: [
          rule('x', { from: money('0.01 EUR'), kinds: ['goods'] }, { what: 'quotes', count: 9 }),
          { ...rule('y'), name: 'because of x' },
        ],
      }),
    ).toEqual([])
  })
  test('without a kind, alone: all else hangs on it', () => {
    expect(codes({ kinds: [] })).toEqual(['kinds - no-kinds'])
  })
  test('for names that are blank or there already, whatever their case', () => {
    expect(codes({ kinds: [kind('goods'), { ...kind('k'), name: ' Goods ' }, { ...kind('l'), name: ' ' }] })).toEqual([
      'kinds 1 name-twice',
      'kinds 2 name-missing',
    ])
    expect(codes({ ownFields: [field('a'), field('b', { name: 'A' })] })).toEqual(['ownFields 1 name-twice'])
    expect(codes({ rules: [{ ...rule('x'), name: '' }] })).toEqual(['rules 0 name-missing'])
  })
  test.each([
    ['', 'series-unreadable'],
    ['r', 'series-unreadable'],
    ['ABCD', 'series-unreadable'],
    ['R1', 'series-unreadable'],
    ['A', 'series-taken'],
    ['P', 'series-taken'],
    ['SUP', 'series-taken'],
  ])('for the series %j', (series, code) => {
    expect(codes({ kinds: [kind('goods', series)], ownFields: [], rules: [] })).toEqual([`kinds 0 ${code}`])
  })
  test('for choices that leave no choice, hold a comma, or come twice', () => {
    expect(codes({ ownFields: [field('a', { type: 'choice', choices: ['one', ' '] })] })).toEqual([
      'ownFields 0 choices-few',
    ])
    expect(codes({ ownFields: [field('a', { type: 'choice', choices: ['one, two', 'three'] })] })).toEqual([
      'ownFields 0 choice-comma',
    ])
    expect(codes({ ownFields: [field('a', { type: 'choice', choices: ['one', 'one '] })] })).toEqual([
      'ownFields 0 choice-twice',
    ])
  })
  test('for a field that stands on documents as another type, or elsewhere', () => {
    const ever = { ...facts, everFields: new Map([['a', field('a', { name: 'Before' })]]) }
    expect(codes({ ownFields: [field('a')] }, ever)).toEqual([])
    expect(codes({ ownFields: [field('a', { type: 'date' })] }, ever)).toEqual(['ownFields 0 type-changed'])
    expect(codes({ ownFields: [field('a', { on: 'line' })] }, ever)).toEqual(['ownFields 0 type-changed'])
  })
  test('for categories of a field that is asked once for the whole request', () => {
    expect(codes({ ownFields: [field('a', { categoryIds: ['pumps'] })] })).toEqual([
      'ownFields 0 categories-of-request',
    ])
  })
  test('for amounts and numbers of quotes out of bounds', () => {
    expect(codes({ rules: [rule('x', { from: money('0.00 EUR') })] })).toEqual(['rules 0 amount-not-positive'])
    expect(codes({ rules: [rule('x', { from: money('1.00 GBP') })] })).toEqual(['rules 0 amount-currency'])
    for (const count of [0, 10, 1.5])
      expect(codes({ rules: [rule('x', {}, { what: 'quotes', count })] })).toEqual(['rules 0 quotes-few'])
    expect(codes({ rules: [rule('x', {}, { what: 'reading', text: ' ' })] })).toEqual(['rules 0 reading-missing'])
  })
  test('for kinds, departments and categories that are not there, each named', () => {
    expect(
      codes({ rules: [rule('x', { kinds: ['gone'], departmentIds: ['ws', 'gone'], categoryIds: ['gone'] })] }),
    ).toEqual(['rules 0 unknown', 'rules 0 unknown', 'rules 0 unknown'])
  })
  test('with everything at once', () => {
    expect(
      codes({
        kinds: [kind('goods', 'p')],
        ownFields: [field('a', { name: '' })],
        rules: [rule('x', { kinds: ['travel'] })],
      }),
    ).toEqual(['kinds 0 series-unreadable', 'ownFields 0 name-missing', 'rules 0 unknown'])
  })
})

describe('taking away', () => {
  test('a kind takes with it what was asked for that kind alone, and leaves what was asked for others too', () => {
    const left = without(
      form({
        ownFields: [field('a', { kinds: ['travel'] }), field('b', { kinds: ['travel', 'goods'] }), field('c')],
        rules: [rule('x', { kinds: ['travel'] }), rule('y')],
      }),
      'kinds',
      1,
    )
    expect(left.kinds.map((k) => k.code)).toEqual(['goods'])
    expect(left.ownFields.map((f) => [f.id, f.kinds])).toEqual([
      ['b', ['goods']],
      ['c', []],
    ])
    expect(left.rules.map((r) => r.id)).toEqual(['y'])
  })
  test('a field or rule goes alone', () => {
    expect(without(form(), 'ownFields', 0)).toEqual(form({ ownFields: [field('b')] }))
    expect(without(form(), 'rules', 1)).toEqual(form({ rules: [rule('x')] }))
  })
})

describe('changes between two forms', () => {
  test('none for the same, whatever the order of keys', () => {
    const { from, kinds, departmentIds, categoryIds, withoutAgreement } = rule('x').when
    expect(
      changesOf(
        form(),
        form({
          rules: [{ ...rule('x'), when: { withoutAgreement, categoryIds, kinds, from, departmentIds } }, rule('y')],
        }),
      ),
    ).toEqual([])
  })
  test('what is new, changed, gone and moved, by name', () => {
    expect(
      changesOf(
        form(),
        form({
          newSuppliers: 'nobody',
          kinds: [kind('travel', 'T'), kind('goods')],
          ownFields: [field('a', { required: true }), field('c')],
        }),
      ),
    ).toEqual([
      { part: 'newSuppliers', what: 'changed' },
      { part: 'kinds', what: 'moved' },
      { part: 'ownFields', what: 'changed', name: 'a' },
      { part: 'ownFields', what: 'added', name: 'c' },
      { part: 'ownFields', what: 'gone', name: 'b' },
    ])
  })
})

describe('what two people wrote at once', () => {
  const base = form()
  test('stands beside each other', () => {
    const mine = form({ ownFields: [field('a', { required: true }), field('b'), field('mine')], rules: [rule('y')] })
    const theirs = form({
      newSuppliers: 'nobody',
      ownFields: [field('a'), field('b', { help: 'theirs' }), field('theirs')],
    })
    expect(mergeForm(base, mine, theirs)).toEqual(
      form({
        newSuppliers: 'nobody',
        ownFields: [field('a', { required: true }), field('b', { help: 'theirs' }), field('theirs'), field('mine')],
        rules: [rule('y')],
      }),
    )
  })
  test('of the same entry the one who puts theirs in force last is kept, also of one the other took away', () => {
    const mine = form({ ownFields: [field('a', { help: 'mine' }), field('b', { help: 'mine' })] })
    const theirs = form({ ownFields: [field('a', { help: 'theirs' })] })
    expect(mergeForm(base, mine, theirs).ownFields).toEqual([
      field('a', { help: 'mine' }),
      field('b', { help: 'mine' }),
    ])
  })
  test('what the other took away stays away when one did not touch it', () => {
    expect(mergeForm(base, base, form({ rules: [] })).rules).toEqual([])
  })
})

describe('merging, whatever was written (property)', () => {
  const ids = ['a', 'b', 'c', 'd', 'e']
  const written = fc
    .record({
      fields: fc.subarray(ids),
      help: fc.array(fc.constantFrom('', 'one', 'two'), { minLength: 5, maxLength: 5 }),
      policy: fc.constantFrom('nobody', 'propose', 'create'),
    })
    .map(({ fields, help, policy }) =>
      form({
        newSuppliers: policy as RequestForm['newSuppliers'],
        ownFields: fields.map((id) => field(id, { help: help[ids.indexOf(id)] ?? '' })),
      }),
    )
  const byId = (f: RequestForm) => ({ ...f, ownFields: [...f.ownFields].sort((x, y) => (x.id < y.id ? -1 : 1)) })
  test('nothing written leaves the newest as it is; nothing new leaves what was written', () => {
    fc.assert(
      fc.property(written, written, (base, other) => {
        expect(mergeForm(base, base, other)).toEqual(other)
        expect(byId(mergeForm(base, other, base))).toEqual(byId(other))
      }),
    )
  })
  test('every entry that one changed, added or took away alone is as they left it', () => {
    fc.assert(
      fc.property(written, written, written, (base, mine, newest) => {
        const [was, own, now, merged] = [base, mine, newest, mergeForm(base, mine, newest)].map(
          (f) => new Map(f.ownFields.map((x) => [x.id, x.help])),
        )
        for (const id of ids) {
          const [before, wrote, theirs] = [was?.get(id), own?.get(id), now?.get(id)]
          if (wrote === before) expect(merged?.get(id)).toBe(theirs)
          else if (theirs === before) expect(merged?.get(id)).toBe(wrote)
        }
      }),
    )
  })
  test('no differences are said of a form and itself, and some of two that differ', () => {
    fc.assert(
      fc.property(written, written, (a, b) => {
        expect(changesOf(a, a)).toEqual([])
        expect(changesOf(a, b).length > 0).toBe(JSON.stringify(a) !== JSON.stringify(b))
      }),
    )
  })
})
