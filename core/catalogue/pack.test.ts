import { expect, test } from 'vitest'
import { packsOf } from './pack'

// Worked by hand: quantity, pack, packs, what they hold, whole.
test.each([
  ['12', '12', '1', '12', true],
  ['13', '12', '2', '24', false],
  ['0.5', '25', '1', '25', false],
  ['75', '25', '3', '75', true],
  ['0.3', '0.1', '3', '0.3', true],
  ['1', '0.3', '4', '1.2', false],
  ['999999999999', '7', '142857142857', '999999999999', true],
])('%s by %s are %s packs that hold %s', (quantity, pack, packs, holds, isWhole) => {
  expect(packsOf(quantity, pack)).toEqual({ packs, holds, isWhole })
})
