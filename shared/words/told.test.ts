import { describe, expect, test } from 'vitest'
import { money } from '#core/base/money'
import type { Told } from '#core/told/told'
import { sayTold } from './told'
import { waysOf } from './ways'

const about = { number: 'R-26-00007', title: 'Sea salt' }
const by = 'Ines Adeyemi'
const amount = money('1217.00 EUR')

describe('what is told is worded for whoever reads it', () => {
  test('amounts in the reader’s ways', () => {
    const told: Told = { code: 'to-decide', by, amount, ...about }
    expect(sayTold(told, waysOf('en-GB')).sentence).toBe('Ines Adeyemi asks for EUR 1,217.00: Sea salt.')
    expect(sayTold(told, waysOf('de-DE')).sentence).toBe('Ines Adeyemi asks for EUR 1.217,00: Sea salt.')
  })
  test.each<[Told, string, string]>([
    [
      { code: 'decided', by, outcome: 'sent back', comment: 'Half will do.', ...about },
      'R-26-00007 sent back: Sea salt',
      'Ines Adeyemi sent back R-26-00007, Sea salt. “Half will do.”',
    ],
    [
      { code: 'decided', by, outcome: 'approved', comment: '', ...about },
      'R-26-00007 approved: Sea salt',
      'Ines Adeyemi approved R-26-00007, Sea salt.',
    ],
    [
      { code: 'decided', by, outcome: 'approved', comment: 'Gladly.', next: ['Tomas Brandt'], ...about },
      'R-26-00007 approved by Ines Adeyemi: Sea salt',
      'Ines Adeyemi approved R-26-00007, Sea salt; next it waits for Tomas Brandt. “Gladly.”',
    ],
    [
      { code: 'approved', by, comment: 'Gladly.', amount, ...about },
      'R-26-00007 approved: Sea salt',
      'Ines Adeyemi approved R-26-00007, Sea salt, and nobody is left to decide: EUR 1,217.00 are approved, and the ' +
        'buyers have it. “Gladly.”',
    ],
    [
      { code: 'approved', by: null, comment: '', amount, ...about },
      'R-26-00007 approved: Sea salt',
      'R-26-00007, Sea salt, is approved, and nobody has to decide on it: EUR 1,217.00. The buyers have it.',
    ],
    [
      { code: 'approved', by: null, ownLimit: true, comment: '', amount, ...about },
      'R-26-00007 approved: Sea salt',
      'R-26-00007, Sea salt, is approved within your own limit: EUR 1,217.00. The buyers have it.',
    ],
    [
      { code: 'held', number: 'R-26-00007' },
      'Held: R-26-00007',
      'R-26-00007 is held: nobody is found who may decide on it. It goes on as soon as somebody is back or somebody ' +
        'decides for them.',
    ],
    [
      { code: 'handed-over', by, to: 'Rosa Castell', number: null, title: '' },
      'Handed over: ',
      'Ines Adeyemi handed a draft, without a title over to Rosa Castell.',
    ],
    [
      { code: 'wished', by, what: 'cancel', text: 'we found some', ...about },
      'A cancellation asked for: Sea salt',
      'Ines Adeyemi asks for the cancellation of R-26-00007, Sea salt: “we found some”',
    ],
    [
      { code: 'ordered', by, supplier: 'Brackwater Salts', whole: false, ...about },
      'R-26-00007 ordered: Sea salt',
      'Ines Adeyemi ordered a part of R-26-00007, Sea salt, from Brackwater Salts.',
    ],
    [
      { code: 'repeated-held', title: 'Krill', missing: [{ code: 'no-why', stops: true, at: 'why' }] },
      'Waits for you: Krill',
      'Krill was raised again by its rhythm and could not be sent: Say why it is needed: whoever decides reads ' +
        'it first.',
    ],
    [
      { code: 'parts-sent', number: 'J-26-00007', title: 'J-101 Pump room' },
      'Sent by itself: J-101 Pump room',
      'What you added to a job was asked for at once: J-26-00007, J-101 Pump room.',
    ],
    [
      { code: 'task-ended', task: 'send-order', error: 'no route' },
      'Something was not carried out',
      'Rekko tried for days and has given up: the sending of an order to its supplier. The last cause was “no route”.',
    ],
    [{ code: 'plain', subject: 's', sentence: 'From before.' }, 's', 'From before.'],
  ])('%o', (told, subject, sentence) => {
    expect(sayTold(told, waysOf('en-GB'))).toEqual({ subject, sentence })
  })
  test('an order’s letter names its lines, its total and the first day it is needed', () => {
    const { sentence } = sayTold(
      {
        code: 'order-sent',
        supplier: 'Corrigan Pumps',
        number: 'P-26-00003',
        organisation: 'Hallamere Oceanarium',
        buyer: 'Leonie Farrow',
        lines: 2,
        currency: 'EUR',
        total: '1448.23',
        shipTo: 'Pump Hall',
        firstDay: '2026-12-08',
        placedAs: null,
        answerAt: null,
      },
      waysOf('en-GB'),
    )
    expect(sentence).toContain('P-26-00003 attached: 2 lines, EUR 1,448.23 with tax,')
    expect(sentence).toContain('to be delivered to Pump Hall by Tuesday 8 December 2026.')
  })
})
