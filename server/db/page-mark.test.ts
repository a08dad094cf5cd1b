import { expect, test } from 'vitest'
import { readPageMark } from './page-mark'

const ID = '3f0c5a52-6a0e-4b7e-9c9b-0d6c2b1f8a11'

test('the key of a page is read back', () => {
  expect(readPageMark(`2026-11-26T12:00:00.123456Z_${ID}`)).toEqual({ moment: '2026-11-26T12:00:00.123456Z', id: ID })
})

test.each([
  undefined,
  '',
  `1_${ID}`,
  `2026-02-30_${ID}`,
  `2026-02-30T00:00:00.000Z_${ID}`,
  `2026-11-26T25:00:00.000Z_${ID}`,
  `2026-11-26T12:00:00.000Z_nobody`,
  `2026-11-26T12:00:00.000Z`,
  `infinity_${ID}`,
])('anything else is no key, and never reaches a statement: %s', (text) => {
  expect(readPageMark(text)).toBeNull()
})
