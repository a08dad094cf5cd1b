import { expect, test } from 'vitest'
import { likePattern } from './pattern'

test.each([
  ['R-26-61', ['%R-26-61%', 'R-26-00061']],
  ['r-26-00061', ['%r-26-00061%']],
  ['R-26-6?', ['R-26-6_']],
  ['26-61', ['%26-61%']],
  ['100%', ['%100\\%%']],
])('%s is looked for among numbers as %j', (typed, numbers) => {
  expect(likePattern(typed).numbers).toEqual(numbers)
})

test('words need not be adjacent, and signs of patterns stand for themselves', () => {
  expect(likePattern(' pump  50% seal* ').words).toEqual(['%pump%', '%50\\%%', '%seal%%'])
})
