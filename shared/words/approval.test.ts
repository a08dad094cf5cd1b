import { expect, test } from 'vitest'
import { money } from '#core/base/money'
import { sayNote, saySeat } from './approval'
import { sayIssueReason } from './order'
import { OUTWARD } from './ways'

const limit = money('1000.00 EUR')

test('why somebody sits on a route, said to the owner, to a colleague, and for somebody away', () => {
  const manager = { code: 'manager', of: 'owen', limit, covers: true } as const
  expect([
    saySeat(manager, { of: 'you' }, OUTWARD),
    saySeat(manager, { of: 'Owen Marsh' }, OUTWARD),
    saySeat(manager, {}, OUTWARD),
  ]).toEqual([
    'your manager; may approve up to 1,000.00',
    'Owen Marsh’s manager; may approve up to 1,000.00',
    'the owner’s manager; may approve up to 1,000.00',
  ])
  expect(saySeat({ ...manager, limit: null }, { of: 'you' }, OUTWARD)).toBe('your manager; has no spending limit')
  expect(saySeat(manager, { of: 'you', forName: 'Ines Adeyemi' }, OUTWARD)).toBe(
    'for Ines Adeyemi, who is away; your manager; may approve up to 1,000.00',
  )
  expect([
    saySeat({ code: 'higher-manager', limit, covers: true }, {}, OUTWARD),
    saySeat({ code: 'higher-manager', limit, covers: false }, {}, OUTWARD),
  ]).toEqual([
    'the first above whose limit covers it; may approve up to 1,000.00',
    'next in line; may approve up to 1,000.00',
  ])
  expect([
    saySeat({ code: 'named' }, {}, OUTWARD),
    saySeat({ code: 'role', role: 'finance' }, {}, OUTWARD),
    saySeat({ code: 'group', name: 'the trustees' }, {}, OUTWARD),
  ]).toEqual(['named by the policy', 'holds the role finance', 'one of the trustees'])
  expect([
    saySeat({ code: 'budget-holder', budgetLineIds: ['a'] }, { lines: ['Pumps', 'Waste'] }, OUTWARD),
    saySeat({ code: 'budget-holder', budgetLineIds: ['a'] }, {}, OUTWARD),
  ]).toEqual(['budget holder of Pumps and Waste', 'budget holder'])
  expect(
    (['no rule fits', 'nobody covers', 'step is empty'] as const).map((because) =>
      saySeat({ code: 'fallback', because }, {}, OUTWARD),
    ),
  ).toEqual([
    'decides what no rule fits',
    'decides since nobody’s limit covers it',
    'decides since nobody else is there',
  ])
})

test('why somebody is not asked', () => {
  const name = (id: string) => ({ ines: 'Ines Adeyemi' })[id] ?? '?'
  expect(sayNote({ code: 'spared-by-own-limit', limit }, name, OUTWARD)).toBe(
    'Within your own limit of 1,000.00, no manager is asked.',
  )
  expect(
    (['own-document', 'away-without-substitute', 'gone', 'does-not-cover', 'asked-later'] as const).map((code) =>
      sayNote({ code, personId: 'ines' }, name, OUTWARD),
    ),
  ).toEqual([
    'Ines Adeyemi raised or owns this and is not asked.',
    'Ines Adeyemi is away without a substitute and is passed over.',
    'Ines Adeyemi has left and is passed over.',
    'Ines Adeyemi may not decide so much.',
    'Ines Adeyemi is asked once, later on.',
  ])
  expect(sayNote({ code: 'rule-does-not-fit', ruleId: 'r' }, name, OUTWARD)).toBeNull()
})

test('what stands in the way of an order names the amounts and who can', () => {
  expect(
    sayIssueReason(
      {
        stops: true,
        code: 'above-ordering-limit',
        limit: money('3000.00 EUR'),
        amount: money('3000.01 EUR'),
        who: [{ personId: 'h', name: 'Harriet Voss' }],
      },
      OUTWARD,
    ),
  ).toBe('Your ordering limit is EUR 3,000.00; this order is EUR 3,000.01: Harriet Voss may issue it.')
  expect(
    sayIssueReason(
      { stops: true, code: 'above-ordering-limit', limit: null, amount: money('1.00 EUR'), who: [] },
      OUTWARD,
    ),
  ).toBe('You have no ordering limit; this order is EUR 1.00: nobody’s limit covers it; ask an administrator.')
  expect(
    sayIssueReason(
      {
        stops: true,
        code: 'above-approved',
        description: 'Lamp',
        ordered: money('120.00 EUR'),
        approved: money('100.00 EUR'),
        who: [{ personId: 't', name: 'Tomas Brandt' }],
      },
      OUTWARD,
    ),
  ).toBe(
    '“Lamp” comes to EUR 120.00, more than the EUR 100.00 that were approved for it: it is decided on first, or ' +
      'its owner asks Tomas Brandt for more.',
  )
  expect([
    sayIssueReason({ stops: true, code: 'order-empty' }, OUTWARD),
    sayIssueReason({ stops: true, code: 'own-need-alone' }, OUTWARD),
    sayIssueReason(
      { stops: true, code: 'supplier-unreachable', supplier: 'Corrigan Pumps', channel: 'e-mail' },
      OUTWARD,
    ),
  ]).toEqual([
    'Nothing lies on this tray yet.',
    'This serves your own need alone; another buyer has to issue it.',
    'Corrigan Pumps has no e-mail address for orders; finance can add it.',
  ])
})
