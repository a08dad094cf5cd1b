import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { money } from '#core/base/money'
import { readTypedNumber } from '#core/base/typed-number'
import { waysOf, OUTWARD_IN } from './ways'

// Days of the week: the calendar of 2026 (1 January is a Thursday), by ISO 8601.
const TODAY = '2026-11-25'
const british = waysOf('en-GB')

describe('numbers', () => {
  test.each([
    ['0', '0'],
    ['999', '999'],
    ['1000', '1,000'],
    ['1234567.891', '1,234,567.891'],
    ['-1234.5', '−1,234.5'],
    ['-0.05', '−0.05'],
  ])('%s is shown as %s', (from, to) => {
    expect(british.decimal(from)).toBe(to)
  })
  test('amounts have their currency’s decimals (ISO 4217): two, none, three', () => {
    expect([money('1217.00 EUR'), money('500 JPY'), money('1.250 KWD')].map(british.money)).toEqual([
      'EUR 1,217.00',
      'JPY 500',
      'KWD 1.250',
    ])
    expect([british.kept('12', 'EUR'), british.kept('1234.5', 'JPY'), british.kept('7', 'KWD')]).toEqual([
      '12.00',
      '1,235',
      '7.000',
    ])
  })
  test('a unit price shows what it has, and at least the currency’s decimals', () => {
    expect([british.price('312.5', 'EUR'), british.price('0.004125', 'EUR'), british.price('18', 'JPY')]).toEqual([
      '312.50',
      '0.004125',
      '18',
    ])
  })
  test('quantities with their unit', () => {
    expect([british.quantity('6', 'H87'), british.quantity('1500.25', 'KGM'), british.quantity('2', 'XX')]).toEqual([
      '6 each',
      '1,500.25 kg',
      '2 XX',
    ])
  })
  // The marks are those of Unicode's CLDR, which Intl carries.
  test.each([
    ['de-DE', 'EUR 1.234,50', ','],
    ['fr-FR', 'EUR 1\u202f234,50', ','],
    ['de-CH', "EUR 1'234.50", '.'],
    ['en-US', 'EUR 1,234.50', '.'],
  ])('in the ways of %s', (locale, said, mark) => {
    expect(waysOf(locale).money(money('1234.50 EUR'))).toBe(said)
    expect(waysOf(locale).decimalMark).toBe(mark)
  })
  test('a locale that nobody knows reads as ours does', () => {
    expect(waysOf('xx-Nowhere').decimal('1234.5')).toBe('1,234.5')
  })
  test('property: what is shown is read again as what it was, also by somebody who writes commas', () => {
    const locale = fc.constantFrom('en-GB', 'de-DE', 'fr-FR', 'de-CH', 'sv-SE', 'pt-BR', 'en-US')
    const number = fc
      .tuple(fc.boolean(), fc.bigInt(0n, 10n ** 12n), fc.integer({ min: 0, max: 999_999 }))
      .map(([minus, whole, rest]) => {
        const decimals = String(rest).padStart(6, '0').replace(/0+$/, '')
        const text = `${whole}${decimals === '' ? '' : `.${decimals}`}`
        return minus && /[1-9]/.test(text) ? `-${text}` : text
      })
    fc.assert(
      fc.property(locale, number, (l, text) => {
        const ways = waysOf(l)
        expect(readTypedNumber(ways.decimal(text), ways.decimalMark)).toBe(text)
        expect(readTypedNumber(ways.typed(text), ways.decimalMark)).toBe(text)
      }),
    )
  })
})

describe('days', () => {
  test('as people say them, with the year where it is another', () => {
    expect(british.day('2026-12-08', TODAY)).toBe('Tuesday 8 December')
    expect(british.day('2027-01-01', TODAY)).toBe('Friday 1 January 2027')
    expect([british.date(TODAY, TODAY), british.shortDate('2025-02-28', TODAY)]).toEqual(['25 November', '28 Feb 2025'])
    expect([british.month('2026-12-08'), british.tinyDate('2026-12-08')]).toEqual(['December 2026', '8.12.26'])
  })
  test('since', () => {
    const days = ['2026-11-25', '2026-11-24', '2026-11-19', '2026-11-18']
    expect(days.map((d) => british.since(d, TODAY))).toEqual(['today', 'yesterday', 'Thursday', '18 Nov'])
  })
  test('a moment is that of the organisation’s time zone', () => {
    expect(british.moment('2026-11-23T23:05:00Z', 'Europe/Berlin', TODAY)).toBe('Tue 24 Nov, 00:05')
    expect(british.exact('2026-11-23T14:05:09Z', 'Europe/London')).toContain('23 November 2026')
  })
  test('names of days come in the language of the words, whatever the marks of numbers are', () => {
    expect(waysOf('de-DE').day('2026-12-08', TODAY)).toBe('Tuesday 8 December')
  })
  // Common practice, no source.
  test('the first of a month is an ordinal on French papers, and no other day', () => {
    const days = ['2027-04-01', '2027-04-11', '2027-04-21'].map((d) => OUTWARD_IN.fr.date(d, ''))
    expect(days).toEqual(['1er avril 2027', '11 avril 2027', '21 avril 2027'])
    expect([OUTWARD_IN.de.date('2027-04-01', ''), british.date('2027-04-01', '')]).toEqual([
      ...['1. April 2027', '1 April 2027'],
    ])
  })
})
