import { describe, expect, test } from 'vitest'
import { OUTWARD } from './ways'
import { sayEvent, sayNext, saySentence, sayOrder } from './trail'

const event = (
  type: string,
  after: Record<string, unknown> | null = null,
  forName: string | null = null,
  actor: string | null = 'Ines Adeyemi',
) => {
  const { station, who, what, more } = sayEvent({ type, actor, forName, after }, OUTWARD)
  return `${station}: ${who} ${what}${more === '' ? '' : ` (${more})`}`
}

test.each([
  [
    event('sent', { lines: 1, amount: { amount: '1060.5', currency: 'EUR' } }),
    'Need: Ines Adeyemi sent, 1 line, EUR 1,060.50',
  ],
  [
    event('sent again', { lines: 3, amount: { amount: '7', currency: 'JPY' } }),
    'Need: Ines Adeyemi sent again, 3 lines, JPY 7',
  ],
  [event('sent', { spared: true }), 'Need: Ines Adeyemi sent (within the own limit, so no manager was asked)'],
  [
    event('approved', { comment: 'gladly' }, 'Tomas Brandt'),
    'Decision: Ines Adeyemi for Tomas Brandt approved: “gladly”',
  ],
  [event('approved', { comment: '' }), 'Decision: Ines Adeyemi approved'],
  [event('sent back', { comment: 'which lamp?' }), 'Decision: Ines Adeyemi sent it back: “which lamp?”'],
  [event('rejected'), 'Decision: Ines Adeyemi rejected it'],
  [event('decision taken back'), 'Decision: Ines Adeyemi took the decision back'],
  [event('asked', { text: 'for when?' }), 'Decision: Ines Adeyemi asked: “for when?”'],
  [event('answered', { text: 'Monday' }), 'Need: Ines Adeyemi answered: “Monday”'],
  [event('reminded', { text: 'Tomas Brandt' }), 'Need: Ines Adeyemi reminded Tomas Brandt'],
  [event('asked for a change', { text: 'four instead' }), 'Order: Ines Adeyemi asked for a change: “four instead”'],
  [
    event('asked for a cancellation', { text: 'found some' }),
    'Order: Ines Adeyemi asked for a cancellation: “found some”',
  ],
  [event('routed again', null, null, null), 'Decision: Rekko worked out anew who decides (people or absences changed)'],
  [event('withdrawn'), 'Need: Ines Adeyemi withdrew it'],
  [event('handed over', { text: 'Rosa Castell' }), 'Need: Ines Adeyemi handed it over to Rosa Castell'],
  [event('rest cancelled', null, null, null), 'Order: Rekko cancelled what was not ordered'],
  [event('something new'), 'Need: Ines Adeyemi something new'],
])('%s', (said, expected) => {
  expect(said).toBe(expected)
})

const [you, tomas, mai] = [
  { name: 'Ines Adeyemi', you: true },
  { name: 'Tomas Brandt', you: false },
  { name: 'Mai Torvald', you: false },
]

describe('how a request stands, and what happens next', () => {
  const asOwner = { waits: [], isOwner: true, question: null, owner: 'Owen Marsh' }
  const asOther = { ...asOwner, isOwner: false }
  test.each([
    [
      'draft',
      'still being written.',
      'It is sent when you press the button on Raise.',
      'It is sent when Owen Marsh presses the button on Raise.',
    ],
    ['approved', 'approved, waits to be ordered.', 'A buyer puts it on an order.', 'A buyer puts it on an order.'],
    [
      'part ordered',
      'approved, and a part of it is ordered.',
      'A buyer orders the rest; what is ordered is on its way.',
      'A buyer orders the rest; what is ordered is on its way.',
    ],
    ['ordered', 'approved and ordered.', 'The supplier delivers.', 'The supplier delivers.'],
    ['closed', 'done.', 'Nothing more.', 'Nothing more.'],
    [
      'sent back',
      'sent back, to be changed.',
      'Change what was asked for and send it again; with no more than before, the approvals given stay.',
      'Owen Marsh changes it and sends it again; with no more than before, the approvals given stay.',
    ],
    ['rejected', 'rejected.', 'Nothing more.', 'Nothing more.'],
    ['withdrawn', 'withdrawn.', 'You can change it and send it again.', 'Owen Marsh may send it again.'],
    ['cancelled', 'cancelled.', 'Nothing more.', 'Nothing more.'],
  ])('%s', (state, sentence, mine, theirs) => {
    expect([saySentence(state, [], false), sayNext(state, asOwner), sayNext(state, asOther)]).toEqual([
      sentence,
      mine,
      theirs,
    ])
  })

  test('in approval it names who decides, oneself as “you”, and never passes over a question or an empty route', () => {
    expect([
      saySentence('in approval', [you, tomas], false),
      saySentence('in approval', [], false),
      saySentence('in approval', [tomas], true),
    ]).toEqual([
      'waits for you and Tomas Brandt.',
      'held, since nobody is found who may decide.',
      'a question waits for an answer.',
    ])
    const next = (f: Partial<Parameters<typeof sayNext>[1]>) => sayNext('in approval', { ...asOwner, ...f })
    expect(next({ waits: [tomas] })).toBe('Tomas Brandt decides; then it goes on by itself.')
    expect(next({ waits: [mai, tomas] })).toBe('Mai Torvald and Tomas Brandt decide; then it goes on by itself.')
    expect(next({ waits: [tomas, you] })).toBe('You decide; then it goes on by itself.')
    expect(next({})).toBe('An administrator has to name somebody who may decide.')
    expect([
      next({ question: { by: 'Tomas Brandt', to: null, isYours: true } }),
      next({ question: { by: 'Tomas Brandt', to: null, isYours: false }, isOwner: false }),
      next({ question: { by: 'Tomas Brandt', to: 'Mai Torvald', isYours: false } }),
    ]).toEqual([
      'Tomas Brandt asked something; answer below, and it goes on.',
      'Tomas Brandt asked something; Owen Marsh has to answer.',
      'Tomas Brandt asked something; Mai Torvald has to answer.',
    ])
  })
})

test('an order says to whom, whether its mail is out, and whom else it serves', () => {
  expect(
    sayOrder({
      state: 'issued',
      number: 'P-26-00001',
      supplier: 'Corrigan Pumps',
      channel: 'e-mail',
      sentAt: null,
      pdf: false,
      others: [],
      ...{ rule: null, placedAs: null, isSent: true },
    }),
  ).toEqual({ who: 'P-26-00001', what: 'to Corrigan Pumps', more: 'the e-mail is on its way' })
  expect(
    sayOrder({
      state: 'issued',
      number: 'P-26-00002',
      supplier: 'Corrigan Pumps',
      channel: 'e-mail',
      sentAt: '2026-11-25T10:00:00Z',
      pdf: true,
      others: ['R-26-1', 'R-26-2'],
      ...{ rule: 'Salt', placedAs: 'book 7', isSent: true },
    }).more,
  ).toBe('made by itself, by “Salt” · placed already as book 7 · e-mailed · PDF kept · also serves R-26-1 and R-26-2')
  const kept = { state: 'issued', number: 'P-26-00003', supplier: 'Corrigan Pumps', channel: null, sentAt: null }
  const more = { pdf: true, others: [], rule: null, placedAs: 'book 7', isSent: false }
  expect(sayOrder({ ...kept, ...more }).more).toBe('placed already as book 7 · PDF kept')
})
