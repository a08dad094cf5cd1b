import { describe, expect, test } from 'vitest'
import { money, type Money } from '#core/base/money'
import { BLANK_DRAFT, BLANK_LINE, type Draft } from './draft'
import { mostQuotes, rulesThatHold, type RequestRule } from './rules'

const line = (id: string, change: Partial<Draft['lines'][number]> = {}) => ({ ...BLANK_LINE, id, ...change })
const draft: Draft = { ...BLANK_DRAFT, departmentId: 'ws', lines: [line('a', { itemId: 'agreed', categoryId: 'pumps' }), line('b', { categoryId: 'instruments' })] }
const nets = new Map<string, Money>([['a', money('900.00 EUR')], ['b', money('500.00 EUR')]])
const facts = { baseCurrency: 'EUR', toBase: new Map([['EUR', '1'], ['GBP', '1.2']]), items: new Map([['agreed', { agreed: true }]]) }
const rule = (when: Partial<RequestRule['when']>, asks: RequestRule['asks'] = { what: 'justification' }, id = 'r'): RequestRule =>
  ({ id, name: 'why', when: { from: null, kinds: [], departmentIds: [], categoryIds: [], withoutAgreement: false, ...when }, asks })
const holds = (when: Partial<RequestRule['when']>, d = draft, n: ReadonlyMap<string, Money> = nets) => rulesThatHold([rule(when)], d, n, facts).length === 1

describe('a rule of the organisation holds', () => {
  test('from its amount on, the amount included', () => {
    expect([holds({ from: money('1400.00 EUR') }), holds({ from: money('1400.01 EUR') })]).toEqual([true, false])
  })
  test('by the lines that no agreement covers, where it says so', () => {
    expect([holds({ from: money('500.00 EUR'), withoutAgreement: true }), holds({ from: money('500.01 EUR'), withoutAgreement: true })]).toEqual([true, false])
    expect(holds({ withoutAgreement: true }, { ...draft, lines: draft.lines.slice(0, 1) })).toBe(false)
  })
  test('by the lines of its categories, and not without one', () => {
    expect([holds({ categoryIds: ['instruments'], from: money('500.00 EUR') }), holds({ categoryIds: ['instruments'], from: money('900.00 EUR') }), holds({ categoryIds: ['feed'] })]).toEqual([true, false, false])
  })
  test('for its kinds and departments', () => {
    expect([holds({ kinds: ['goods'] }), holds({ kinds: ['travel'] }), holds({ departmentIds: ['ws'] }), holds({ departmentIds: ['ac'] }), holds({ departmentIds: ['ac'] }, { ...draft, departmentId: null })]).toEqual([true, false, true, false, false])
  })
  test('with amounts in other currencies at their rate', () => {
    const pounds = new Map<string, Money>([['b', money('500.00 GBP')]])
    expect([holds({ from: money('600.00 EUR') }, draft, pounds), holds({ from: money('600.01 EUR') }, draft, pounds)]).toEqual([true, false])
  })
  test('not for an empty draft', () => { expect(holds({}, { ...draft, lines: [] })).toBe(false) })
  test('lines without a price yet count as nothing', () => { expect(holds({ from: money('0.01 EUR') }, draft, new Map())).toBe(false) })
})

test('of several that ask for quotes, the one that asks for the most counts', () => {
  const two = rule({}, { what: 'quotes', count: 2 }, 'two')
  const three = rule({}, { what: 'quotes', count: 3 }, 'three')
  expect(mostQuotes([two, three, rule({})])).toEqual({ count: 3, rule: three })
  expect(mostQuotes([rule({})])).toBeNull()
})
