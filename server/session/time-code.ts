import { Secret, TOTP } from 'otpauth'

/** Steps of thirty seconds in which a code may come early or late (RFC 6238, 5.2 recommends one at most). */
const WINDOW = 1
const PERIOD = 30
const DIGITS = 6

const totp = (secret: string, label = '', issuer = '') =>
  new TOTP({ issuer, label, algorithm: 'SHA1', digits: DIGITS, period: PERIOD, secret: Secret.fromBase32(secret) })

/** A new secret of 160 bits (RFC 4226, 4), in base 32 as applications for codes take it. */
export const newSecret = (): string => new Secret({ size: 20 }).base32

/** The address by which an application for codes takes a secret in, by hand or as a picture. */
export const addressOfSecret = (secret: string, person: string, organisation: string): string =>
  totp(secret, person, organisation).toString()

/** The step that a code is of at a moment, a step early or late at most; null where it is none. RFC 6238. */
export function stepOfCode(secret: string, code: string, now: Date): number | null {
  const token = code.replace(/\s/g, '')
  if (!/^\d{6}$/.test(token)) return null
  const delta = totp(secret).validate({ token, timestamp: now.getTime(), window: WINDOW })
  return delta === null ? null : Math.floor(now.getTime() / 1000 / PERIOD) + delta
}
