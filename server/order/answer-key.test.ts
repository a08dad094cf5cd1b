import { expect, test } from 'vitest'
import { answerKeyOf, readAnswerKey } from './answer-key'

const [SECRET, ORDER] = ['a secret of at least thirty-two signs', '0b4f5c1e-9a30-4c5f-8a57-1d2e3f405162']

test('a key opens its own order and no other, with its own secret alone', () => {
  const key = answerKeyOf(SECRET, ORDER)
  expect(key).toMatch(/^[0-9a-f]{64}$/)
  expect(readAnswerKey(SECRET, key)).toBe(ORDER)
  expect(readAnswerKey(`${SECRET}!`, key)).toBeNull()
  const other = `1${key.slice(1)}`
  for (const wrong of [other, key.slice(0, -1), `${key}0`, key.toUpperCase(), '', `${key.slice(0, -1)}g`])
    expect(readAnswerKey(SECRET, wrong)).toBeNull()
})
