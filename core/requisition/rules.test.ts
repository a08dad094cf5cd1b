import { describe, expect, test } from 'vitest'
import { money, type Money } from '#core/base/money'
import { BLANK_DRAFT, BLANK_LINE, type Draft, type DraftLine } from './draft'
import { replayRule } from './replay'
import { attachedKinds, isMet, mostQuotes, rulesThatHold, type RequestRule } from './rules'

const line = (id: string, change: Partial<Draft['lines'][number]> = {}) => ({ ...BLANK_LINE, id, ...change })
const draft: Draft = {
  ...BLANK_DRAFT,
  departmentId: 'ws',
  lines: [line('a', { itemId: 'agreed', categoryId: 'pumps' }), line('b', { categoryId: 'instruments' })],
}
const nets = new Map<string, Money>([
  ['a', money('900.00 EUR')],
  ['b', money('500.00 EUR')],
])
const facts = {
  baseCurrency: 'EUR',
  perBase: new Map([
    ['EUR', '1'],
    ['GBP', '0.8'],
  ]),
  isAgreed: (line: DraftLine) => line.itemId === 'agreed',
}
const rule = (
  when: Partial<RequestRule['when']>,
  asks: RequestRule['asks'] = { what: 'justification' },
  id = 'r',
): RequestRule => ({
  id,
  name: 'why',
  when: { from: null, kinds: [], departmentIds: [], categoryIds: [], withoutAgreement: false, ...when },
  asks,
})
const holds = (when: Partial<RequestRule['when']>, d = draft, n: ReadonlyMap<string, Money> = nets) =>
  rulesThatHold([rule(when)], d, n, facts).length === 1

describe('a rule of the organisation holds', () => {
  test('from its amount on, the amount included', () => {
    expect([holds({ from: money('1400.00 EUR') }), holds({ from: money('1400.01 EUR') })]).toEqual([true, false])
  })
  test('by the lines that no agreement covers, where it says so', () => {
    expect([
      holds({ from: money('500.00 EUR'), withoutAgreement: true }),
      holds({ from: money('500.01 EUR'), withoutAgreement: true }),
    ]).toEqual([true, false])
    expect(holds({ withoutAgreement: true }, { ...draft, lines: draft.lines.slice(0, 1) })).toBe(false)
  })
  test('by the lines of its categories, and not without one', () => {
    expect([
      holds({ categoryIds: ['instruments'], from: money('500.00 EUR') }),
      holds({ categoryIds: ['instruments'], from: money('900.00 EUR') }),
      holds({ categoryIds: ['feed'] }),
    ]).toEqual([true, false, false])
  })
  test('for its kinds and departments', () => {
    expect([
      holds({ kinds: ['goods'] }),
      holds({ kinds: ['travel'] }),
      holds({ departmentIds: ['ws'] }),
      holds({ departmentIds: ['ac'] }),
      holds({ departmentIds: ['ac'] }, { ...draft, departmentId: null }),
    ]).toEqual([true, false, true, false, false])
  })
  test('with amounts in other currencies at their rate', () => {
    const pounds = new Map<string, Money>([['b', money('500.00 GBP')]])
    expect([
      holds({ from: money('625.00 EUR') }, draft, pounds),
      holds({ from: money('625.01 EUR') }, draft, pounds),
    ]).toEqual([true, false])
  })
  test('not for an empty draft', () => {
    expect(holds({}, { ...draft, lines: [] })).toBe(false)
  })
  test('lines without a price yet count as nothing', () => {
    expect(holds({ from: money('0.01 EUR') }, draft, new Map())).toBe(false)
  })
})

test('identical copies of a file are one quote', () => {
  const file = (fileHash: string, kind: 'quote' | 'drawing' = 'quote') => ({ fileHash, kind })
  expect(attachedKinds([file('a'), file('b', 'drawing'), file('a'), file('c')])).toEqual(['quote', 'drawing', 'quote'])
})

test('of several that ask for quotes, the one that asks for the most counts', () => {
  const two = rule({}, { what: 'quotes', count: 2 }, 'two')
  const three = rule({}, { what: 'quotes', count: 3 }, 'three')
  expect(mostQuotes([two, three, rule({})])).toEqual({ count: 3, rule: three })
  expect(mostQuotes([rule({})])).toBeNull()
})

test('a rule is met by what it asks for, and by nothing else', () => {
  const met = (asks: RequestRule['asks'], d: Partial<Draft> = {}, attached: Parameters<typeof isMet>[2] = []) =>
    isMet(rule({}, asks), { ...draft, ...d }, attached)
  expect([
    met({ what: 'quotes', count: 2 }, {}, ['quote', 'other']),
    met({ what: 'quotes', count: 2 }, {}, ['quote', 'quote']),
  ]).toEqual([false, true])
  expect([
    met({ what: 'attachment', kind: 'drawing' }, {}, ['quote']),
    met({ what: 'attachment', kind: 'drawing' }, {}, ['drawing']),
  ]).toEqual([false, true])
  expect([
    met({ what: 'justification' }, { justification: '  ' }),
    met({ what: 'justification' }, { justification: 'yes' }),
  ]).toEqual([false, true])
  expect([
    met({ what: 'reading', text: 'this' }, { readWarnings: ['other'] }),
    met({ what: 'reading', text: 'this' }, { readWarnings: ['r'] }),
  ]).toEqual([false, true])
})

test('replayed over past requests, a rule says how many it would have asked, and how many lack it', () => {
  const priced = (id: string, unitPrice: string | null, change: Partial<Draft['lines'][number]> = {}): Draft => ({
    ...draft,
    lines: [line(id, { quantity: '2', unitPrice, ...change })],
  })
  const past = [
    { draft: priced('a', '499.995'), attached: [] },
    { draft: priced('b', '499.994'), attached: [] },
    { draft: priced('c', null), attached: [] },
    { draft: priced('d', '600', { discount: { of: 'percent', value: '50' } }), attached: [] },
    { draft: priced('e', '900'), attached: ['quote', 'quote'] as const },
  ]
  // 2 at 499.995 and at 499.994 are 999.99 each, at 600 less half 600.00, at 900 1,800.00, the last with its quotes.
  expect(replayRule(rule({ from: money('999.99 EUR') }, { what: 'quotes', count: 2 }), past, facts)).toEqual({
    asked: 3,
    lacking: 2,
  })
  expect(replayRule(rule({ from: money('1000.00 EUR') }, { what: 'quotes', count: 2 }), past, facts)).toEqual({
    asked: 1,
    lacking: 0,
  })
})
