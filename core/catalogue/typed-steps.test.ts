import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { readSteps, stepsOf, writeSteps } from './typed-steps'

describe('prices by quantity, as people write them', () => {
  test.each([
    ['4.20', '.', '1: 4.2'],
    ['4,20; ab 10: 3,90', ',', '1: 4.2; 10: 3.9'],
    ['50: 3.5; 4.20; from 10: 3.90', '.', '1: 4.2; 10: 3.9; 50: 3.5'],
    ['EUR 1,234.50', '.', '1: 1234.5'],
    ['0.5: 8', '.', '0.5: 8'],
    ['1: 0', '.', '1: 0'],
  ] as const)('%s with %s is %s', (text, mark, plain) => {
    expect(readSteps(text, mark)).toBe(plain)
  })
  test.each(['', ';', 'dear', '4.20; 10:', '10: 3; 10: 4', '-1', '5: -2', '1: 2: 3x', '0.0000001', '1.0000001: 5'])(
    '%s is none',
    (text) => {
      expect(readSteps(text, '.')).toBeNull()
    },
  )
  test('more than twenty are none', () => {
    const steps = Array.from({ length: 21 }, (_, i) => `${i + 1}: 5`).join('; ')
    expect(readSteps(steps, '.')).toBeNull()
  })
})

test('what is written is read back the same, with either mark', () => {
  const number = fc.integer({ min: 1, max: 9_999_999 }).map((n) => String(n / 1000))
  const steps = fc.uniqueArray(fc.record({ from: number, unitPrice: number }), {
    selector: (s) => s.from,
    minLength: 1,
    maxLength: 20,
  })
  fc.assert(
    fc.property(steps, fc.constantFrom('.' as const, ',' as const), (some, mark) => {
      const plain = writeSteps(some)
      expect(readSteps(plain.replaceAll('.', mark), mark)).toBe(plain)
      expect(writeSteps(stepsOf(plain))).toBe(plain)
    }),
  )
})
