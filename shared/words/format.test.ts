import { describe, expect, test } from 'vitest'
import { money } from '#core/base/money'
import {
  capital,
  formatCount,
  formatDate,
  formatDay,
  formatDecimal,
  formatKept,
  formatMoney,
  formatPrice,
  formatQuantity,
  formatShortDate,
  formatSize,
  inWords,
  listWords,
  weeksOf,
} from './format'

// Days of the week: the calendar of 2026 (1 January is a Thursday), by ISO 8601.
const TODAY = '2026-11-25'

describe('numbers', () => {
  test.each([
    ['0', '0'],
    ['999', '999'],
    ['1000', '1,000'],
    ['1234567.891', '1,234,567.891'],
    ['-1234.5', '−1,234.5'],
    ['-0.05', '−0.05'],
  ])('%s is shown as %s', (from, to) => {
    expect(formatDecimal(from)).toBe(to)
  })
  test('amounts have their currency’s decimals (ISO 4217): two, none, three', () => {
    expect([formatMoney(money('1217.00 EUR')), formatMoney(money('500 JPY')), formatMoney(money('1.250 KWD'))]).toEqual(
      ['EUR 1,217.00', 'JPY 500', 'KWD 1.250'],
    )
    expect([formatKept('12', 'EUR'), formatKept('1234.5', 'JPY'), formatKept('7', 'KWD')]).toEqual([
      '12.00',
      '1,235',
      '7.000',
    ])
  })
  test('a unit price shows what it has, and at least the currency’s decimals', () => {
    expect([formatPrice('312.5', 'EUR'), formatPrice('0.004125', 'EUR'), formatPrice('18', 'JPY')]).toEqual([
      '312.50',
      '0.004125',
      '18',
    ])
  })
  test('quantities with their unit', () => {
    expect([formatQuantity('6', 'H87'), formatQuantity('1500.25', 'KGM'), formatQuantity('2', 'XX')]).toEqual([
      '6 each',
      '1,500.25 kg',
      '2 XX',
    ])
  })
  test('sizes of files', () => {
    expect([formatSize(999), formatSize(84_400), formatSize(2_340_000)]).toEqual(['999 bytes', '84 kB', '2.3 MB'])
  })
})

describe('days', () => {
  test('as people say them, with the year where it is another', () => {
    expect(formatDay('2026-12-08', TODAY)).toBe('Tuesday 8 December')
    expect(formatDay('2027-01-01', TODAY)).toBe('Friday 1 January 2027')
    expect([formatDate(TODAY, TODAY), formatShortDate('2025-02-28', TODAY)]).toEqual(['25 November', '28 Feb 2025'])
  })
  test('a month as weeks from Monday', () => {
    const weeks = weeksOf('2026-11-25')
    expect([weeks[0]?.[0], weeks[0]?.[6], weeks[5]?.[6]]).toEqual(['2026-10-26', '2026-11-01', '2026-12-06'])
    // February 2027 begins on a Monday.
    expect(weeksOf('2027-02-14')[0]?.[0]).toBe('2027-02-01')
  })
})

describe('words', () => {
  test('small counts in words, larger in digits', () => {
    expect([inWords(0), inWords(1), inWords(12), inWords(13)]).toEqual(['no', 'one', 'twelve', '13'])
    expect([formatCount(1, 'line', 'lines'), formatCount(14, 'line', 'lines')]).toEqual(['one line', '14 lines'])
  })
  test('lists and beginnings', () => {
    expect([listWords([]), listWords(['a']), listWords(['a', 'b']), listWords(['a', 'b', 'c'])]).toEqual([
      '',
      'a',
      'a and b',
      'a, b and c',
    ])
    expect([capital('two lines'), capital('')]).toEqual(['Two lines', ''])
  })
})
