import { expect, test } from 'vitest'
import { checkTaxNumber } from './tax-number'

// Numbers that the documentation of Debian's python3-stdnum gives for each scheme (from memory).
test.each([
  ['AT', 'ATU13585627'],
  ['BE', 'BE 0428.759.497'],
  ['DE', 'DE 136,695 976'],
  ['DK', 'DK 13585628'],
  ['FI', 'FI 20774740'],
  ['FR', 'FR 83404833048'],
  ['GB', 'GB 980 7806 84'],
  ['IT', 'IT 00743110157'],
  ['NL', 'NL4495445B01'.replace('NL', 'NL00')],
  ['PL', 'PL 8567346215'],
  ['SE', 'SE 123456789701'],
])('%s: a published number is sound', (_, number) => {
  expect(checkTaxNumber(number)).toBe('sound')
})
test.each(['ATU13585626', 'DE136695975', 'DK13585627', 'IT00743110158', 'PL8567346216'])(
  '%s: with another last digit it is wrong',
  (number) => {
    expect(checkTaxNumber(number)).toBe('wrong')
  },
)
test.each(['', '12/345/67890', 'HL7437037', 'DE12', 'Steuernummer 12'])(
  '“%s” follows no scheme that is known',
  (number) => {
    expect(checkTaxNumber(number)).toBe('unknown')
  },
)
