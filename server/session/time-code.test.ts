import { Secret, TOTP } from 'otpauth'
import { expect, test } from 'vitest'
import { addressOfSecret, newSecret, stepOfCode } from './time-code'

/** RFC 6238, appendix B: the secret "12345678901234567890", codes of eight digits by HMAC-SHA-1. */
const SECRET = Secret.fromUTF8('12345678901234567890').base32
test.each([
  [59, '94287082'],
  [1111111109, '07081804'],
  [1111111111, '14050471'],
  [1234567890, '89005924'],
  [2000000000, '69279037'],
  [20000000000, '65353130'],
])('RFC 6238, appendix B: at %i the code is %s, and its last six digits are ours', (seconds, code) => {
  const published = new TOTP({ algorithm: 'SHA1', digits: 8, period: 30, secret: Secret.fromBase32(SECRET) })
  expect(published.generate({ timestamp: seconds * 1000 })).toBe(code)
  expect(stepOfCode(SECRET, code.slice(2), new Date(seconds * 1000))).toBe(Math.floor(seconds / 30))
})
test('a code counts a step early and late, not two; blanks do not matter, letters do', () => {
  const at = (seconds: number) => stepOfCode(SECRET, '287 082', new Date(seconds * 1000))
  expect([at(29), at(59), at(89)]).toEqual([1, 1, 1])
  expect([at(120), at(150)]).toEqual([null, null])
  expect(stepOfCode(SECRET, '28708', new Date(59_000))).toBeNull()
  expect(stepOfCode(SECRET, 'abcdef', new Date(59_000))).toBeNull()
})
test('a secret has 160 bits; its address names who and where', () => {
  expect(Secret.fromBase32(newSecret()).bytes).toHaveLength(20)
  const address = new URL(addressOfSecret(SECRET, 'ida@x.example', 'Weirside Trust'))
  expect([address.protocol, address.searchParams.get('issuer')]).toEqual(['otpauth:', 'Weirside Trust'])
})
