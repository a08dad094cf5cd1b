import { expect, test } from 'vitest'
import { mailSort, mailWay } from './mail-sort'

test('what waits for somebody, what became of theirs, and what nobody leaves out are told apart', () => {
  const named = { number: null, title: 'Lamps', by: 'Ines' }
  expect(mailSort({ code: 'asked', ...named, text: 'which?' })).toBe('waiting')
  expect(mailSort({ code: 'answered', ...named, text: 'this' })).toBe('news')
  expect(mailSort({ code: 'password-changed', from: '' })).toBe('always')
})
test('each sort comes as its reader wants it; what nobody leaves out comes at once', () => {
  const ways = { waiting: 'daily', news: 'never' } as const
  const named = { number: null, title: 'Lamps', by: 'Ines' }
  expect(mailWay({ code: 'asked', ...named, text: '' }, ways)).toBe('daily')
  expect(mailWay({ code: 'answered', ...named, text: '' }, ways)).toBe('never')
  expect(mailWay({ code: 'password-changed', from: '' }, ways)).toBe('at once')
})
