import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto'

const COST = { N: 16384, r: 8, p: 1, maxmem: 64 * 1024 * 1024 }

function derive(password: string, salt: Buffer): Promise<Buffer> {
  return new Promise((done, fail) =>
    scrypt(password.normalize('NFKC'), salt, 32, COST, (e, key) => (e === null ? done(key) : fail(e))),
  )
}

/** A password kept as scrypt (RFC 7914) with its own salt. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16)
  return `scrypt:${salt.toString('base64url')}:${(await derive(password, salt)).toString('base64url')}`
}

/**
 * Compares in constant time; also works through a hash where there is none, so that a stranger learns nothing by
 * waiting.
 */
export async function checkPassword(password: string, kept: string | null): Promise<boolean> {
  const [scheme, salt, key] = (
    kept ?? `scrypt:${Buffer.alloc(16).toString('base64url')}:${Buffer.alloc(32).toString('base64url')}`
  ).split(':')
  if (scheme !== 'scrypt' || salt === undefined || key === undefined) return false
  const derived = await derive(password, Buffer.from(salt, 'base64url'))
  return timingSafeEqual(derived, Buffer.from(key, 'base64url')) && kept !== null
}
