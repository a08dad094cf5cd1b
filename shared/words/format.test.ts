import { describe, expect, test } from 'vitest'
import { capital, formatCount, formatCounted, formatSize, inWords, listWords, weeksOf } from './format'

test('sizes of files', () => {
  expect([formatSize(999), formatSize(84_400), formatSize(2_340_000)]).toEqual(['999 bytes', '84 kB', '2.3 MB'])
})

test('a month as weeks from Monday', () => {
  const weeks = weeksOf('2026-11-25')
  expect([weeks[0]?.[0], weeks[0]?.[6], weeks[5]?.[6]]).toEqual(['2026-10-26', '2026-11-01', '2026-12-06'])
  // February 2027 begins on a Monday.
  expect(weeksOf('2027-02-14')[0]?.[0]).toBe('2027-02-01')
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

test('a count that stops says so', () => {
  expect([formatCounted(1000), formatCounted(1001), formatCounted(1001, 'badge')]).toEqual([
    '1000',
    'more than 1,000',
    '1,000+',
  ])
})
