import { describe, expect, test } from 'vitest'
import { sayPasswordReason } from '#shared/words/password'
import { judgePassword, passwordShape } from './password'

const hard = { guesses: 12, because: 'pattern' } as const

describe('a new password', () => {
  test('has 15 characters at least, counted as they are seen', () => {
    expect(passwordShape('fourteen chars', null)).toEqual([{ code: 'too-short', least: 15, has: 14 }])
    expect(passwordShape('fifteen chars !', null)).toEqual([])
    expect(passwordShape('🐟'.repeat(14), null)).toEqual([{ code: 'too-short', least: 15, has: 14 }])
    // An accent typed as a character of its own is part of the letter it stands on.
    expect(passwordShape('e\u0301'.repeat(14), null)).toEqual([{ code: 'too-short', least: 15, has: 14 }])
    expect(passwordShape('x'.repeat(200), null)).toEqual([])
    expect(passwordShape('x'.repeat(201), null)).toEqual([{ code: 'too-long', most: 200 }])
  })
  test('is another than before, however it was typed', () => {
    expect(passwordShape('caf\u00e9 on the third quay', 'cafe\u0301 on the third quay')).toEqual([
      { code: 'as-before' },
    ])
    expect(passwordShape('Café on the third quay', 'café on the third quay')).toEqual([])
  })
  test('takes more than a hundred million guesses', () => {
    expect(judgePassword('seven wet otters sing', null, hard)).toEqual([])
    expect(judgePassword('seven wet otters sing', null, { guesses: 8, because: 'common' })).toEqual([])
    expect(judgePassword('seven wet otters sing', null, { guesses: 7.9, because: 'common' })).toEqual([
      { code: 'easily-guessed', because: 'common' },
    ])
    // What can be said at once is said first.
    expect(judgePassword('otter', null, { guesses: 1, because: 'common' })).toEqual([
      { code: 'too-short', least: 15, has: 5 },
    ])
  })
  test('is refused with a sentence that says what would be taken', () => {
    expect(sayPasswordReason({ code: 'too-short', least: 15, has: 1 })).toBe(
      'A password has at least 15 characters; a few words you like will do. This has one character.',
    )
    expect(sayPasswordReason({ code: 'easily-guessed', because: 'own-words' })).toBe(
      'It would soon be guessed: it is made of your name, your address or the organisation’s. Add a word or two that ' +
        'nobody would expect.',
    )
  })
})
