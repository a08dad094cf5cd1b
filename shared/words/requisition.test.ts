import { describe, expect, test } from 'vitest'
import { money } from '#core/base/money'
import { REQUISITION_MOVES, REQUISITION_STATES, type RequisitionMoveName } from '#core/requisition/moves'
import { sayNext } from './mine'
import { sayDiscount, sayMissing, sayMoveReason, saySplitReason } from './requisition'
import { sayRowReason } from './line-table'
import { OUTWARD } from './ways'

/** A sentence begins with a capital or a quotation mark and ends with a point. */
const SENTENCE = /^[“A-Z].*[.]$/

describe('every reason has a sentence that a person can act on', () => {
  test('moves: what state it is in, or who may', () => {
    for (const move of Object.keys(REQUISITION_MOVES) as RequisitionMoveName[]) {
      for (const state of REQUISITION_STATES)
        expect(sayMoveReason({ code: 'wrong-state', stops: true, state, move })).toMatch(
          new RegExp(`^This requisition is ${state} and cannot be [a-z ]+ now\\.$`),
        )
    }
    for (const by of ['owner', 'buyer', 'step holder', 'owner or buyer'] as const)
      expect(sayMoveReason({ code: 'not-yours', stops: true, by })).toMatch(/^Only .* may do this\.$/)
  })
  test('money: how much too much, and how much is left', () => {
    const about = { at: 'lines', name: 'Pumps', by: money('60.00 EUR'), left: money('1000.00 EUR') } as const
    expect(sayMissing({ code: 'budget-refuses', stops: true, ...about }, OUTWARD)).toBe(
      'Pumps has EUR 1,000.00 left, and does not allow more: this is EUR 60.00 too much.',
    )
    expect(sayMissing({ code: 'budget-asks', stops: true, ...about }, OUTWARD)).toBe(
      'Pumps would be passed by EUR 60.00: say why that is right.',
    )
    expect(sayMissing({ code: 'budget-tells', stops: false, ...about }, OUTWARD)).toBe(
      'Pumps would be passed by EUR 60.00.',
    )
  })
  test('a line is named by its words, shortened, and without words it is “a line”', () => {
    const at = { line: 'l1', field: 'price' } as const
    expect(sayMissing({ code: 'line-no-price', stops: true, at, name: 'Lamp' }, OUTWARD)).toBe(
      '“Lamp” has no price yet; an estimate will do.',
    )
    expect(sayMissing({ code: 'line-no-price', stops: true, at, name: '' }, OUTWARD)).toBe(
      'A line has no price yet; an estimate will do.',
    )
    expect(sayMissing({ code: 'line-no-price', stops: true, at, name: 'x'.repeat(200) }, OUTWARD).length).toBeLessThan(
      110,
    )
  })
  test('splits and rows of a table', () => {
    expect(saySplitReason({ code: 'split-not-hundred', sum: '1110.5' }, OUTWARD)).toBe('The parts add up to 1,110.5 %.')
    expect(saySplitReason({ code: 'split-not-quantity', sum: '5', quantity: '6' }, OUTWARD)).toBe(
      'The parts add up to 5 of 6.',
    )
    expect(saySplitReason({ code: 'split-value-missing', at: 0 }, OUTWARD)).toBe('Say how much payer 1 takes.')
    expect(sayRowReason({ code: 'row-quantity', stops: true, text: 'many '.repeat(30) }).length).toBeLessThan(60)
    for (const code of ['row-no-words', 'row-no-room', 'row-too-long'] as const)
      expect(sayRowReason({ code, stops: true })).toMatch(SENTENCE)
  })
})

test('a row of Mine says what it waits for and what its owner can do, in every state', () => {
  const row = (state: string, more: Partial<Parameters<typeof sayNext>[0]> = {}) =>
    sayNext({ state, question: null, stateBy: 'Ines Adeyemi', waitsFor: [], ...more })
  expect(row('draft')).toEqual({ you: false, words: 'Nothing: not sent yet', action: 'Go on' })
  expect(row('sent back')).toEqual({ you: true, words: 'sent back by Ines Adeyemi', action: 'Change' })
  expect(row('in approval', { waitsFor: ['Ines Adeyemi', 'Tomas Brandt'] })).toEqual({
    you: false,
    words: 'Ines Adeyemi and Tomas Brandt',
    action: 'See',
  })
  expect(row('in approval')).toEqual({ you: false, words: 'An administrator: nobody may decide', action: 'See' })
  expect(row('in approval', { question: 'Tomas Brandt' })).toEqual({
    you: true,
    words: 'answer Tomas Brandt’s question',
    action: 'Answer',
  })
  expect(row('rejected', { stateBy: null })).toEqual({
    you: false,
    words: 'Nothing: rejected by somebody',
    action: 'Copy',
  })
  for (const state of REQUISITION_STATES) expect([state, row(state).words !== '']).toEqual([state, true])
  expect(REQUISITION_STATES.filter((s) => row(s).you)).toEqual(['sent back'])
})

test('what rules, warnings, fields and lead times ask for is said in the organisation’s own words', () => {
  const about = { at: 'attachments', stops: true } as const
  expect(
    sayMissing(
      { ...about, code: 'quotes-missing', has: 1, needs: 2, why: 'from 1,000 two quotes are asked for' },
      OUTWARD,
    ),
  ).toBe('One more quote: from 1,000 two quotes are asked for.')
  expect(sayMissing({ ...about, code: 'quotes-missing', has: 0, needs: 2, why: 'x' }, OUTWARD)).toBe(
    'Two quotes are missing: x.',
  )
  expect(sayMissing({ ...about, code: 'quotes-missing', has: 0, needs: 1, why: 'x' }, OUTWARD)).toBe(
    'One quote is missing: x.',
  )
  expect([1, 3].map((count) => sayMissing({ ...about, code: 'attachment-unsaid', count }, OUTWARD))).toEqual([
    'Say what the attached file is: quotes are counted.',
    'Say what 3 attached files are: quotes are counted.',
  ])
  expect(sayMissing({ ...about, code: 'attachment-missing', kind: 'specification', why: 'x' }, OUTWARD)).toBe(
    'Attach a specification: x.',
  )
  expect(sayMissing({ ...about, code: 'warning-unread', name: 'Rope', text: 'It comes by ferry.' }, OUTWARD)).toBe(
    'Read the warning about “Rope”: It comes by ferry.',
  )
  expect(sayMissing({ ...about, code: 'own-field-missing', field: 'Who travels', name: '' }, OUTWARD)).toBe(
    'Fill in Who travels.',
  )
  expect(sayMissing({ ...about, code: 'own-field-unreadable', field: 'Depth', name: 'Probe' }, OUTWARD)).toBe(
    'What stands in Depth of “Probe” cannot be read.',
  )
  expect(sayMissing({ ...about, code: 'need-by-soon', earliest: '2026-12-30', name: 'Lamp' }, OUTWARD)).toBe(
    '“Lamp” can hardly be here before Wednesday 30 December 2026.',
  )
  expect([
    sayDiscount({ of: 'percent', value: '2.5' }, 'EUR', OUTWARD),
    sayDiscount({ of: 'amount', value: '12' }, 'EUR', OUTWARD),
    sayDiscount(null, 'EUR', OUTWARD),
  ]).toEqual([['less 2.5 %'], ['less 12.00'], []])
})
