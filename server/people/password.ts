import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto'
import pLimit from 'p-limit'
import { passwordText } from '#core/people/password'

interface Cost {
  readonly N: number
  readonly r: number
  readonly p: number
}
/** For machines with little memory: 16 MB and five rounds. Source: OWASP Password Storage Cheat Sheet, scrypt. */
const TODAY: Cost = { N: 16_384, r: 8, p: 5 }
/** What hashes say that name no parameters of their own. */
const BEFORE: Cost = { N: 16_384, r: 8, p: 1 }
const MOST_MEMORY = 64 * 1024 * 1024

/** Two at once: many sign-ins at the same moment take their turn, and hold neither threads nor memory. */
const turns = pLimit(2)

function derive(password: string, salt: Buffer, cost: Cost): Promise<Buffer> {
  return turns(
    () =>
      new Promise((done, fail) => {
        scrypt(passwordText(password), salt, 32, { ...cost, maxmem: MOST_MEMORY }, (e, key) => {
          if (e === null) done(key)
          else fail(e)
        })
      }),
  )
}

interface Kept {
  readonly cost: Cost
  readonly salt: Buffer
  readonly key: Buffer
}

/** A password kept as scrypt (RFC 7914) with its parameters and its own salt. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16)
  return write({ cost: TODAY, salt, key: await derive(password, salt, TODAY) })
}

const write = ({ cost, salt, key }: Kept) =>
  `scrypt:${cost.N}:${cost.r}:${cost.p}:${salt.toString('base64url')}:${key.toString('base64url')}`

/** Null where it is no hash of ours. */
function readHash(text: string): Kept | null {
  const found = /^scrypt:(?:(\d+):(\d+):(\d+):)?([\w-]+):([\w-]+)$/.exec(text)
  if (found === null) return null
  const [, N, r, p, salt = '', key = ''] = found
  const cost = N === undefined ? BEFORE : { N: Number(N), r: Number(r), p: Number(p) }
  return { cost, salt: Buffer.from(salt, 'base64url'), key: Buffer.from(key, 'base64url') }
}

/** Whether a hash was made with other parameters than today's, and is to be made anew when the password is known. */
export function isOutdated(kept: string): boolean {
  const { N, r, p } = readHash(kept)?.cost ?? BEFORE
  return N !== TODAY.N || r !== TODAY.r || p !== TODAY.p
}

const NOBODYS: Kept = { cost: TODAY, salt: Buffer.alloc(16), key: Buffer.alloc(32) }

/**
 * Compares in constant time; also works through a hash where there is none, so that a stranger learns nothing by
 * waiting.
 */
export async function checkPassword(password: string, kept: string | null): Promise<boolean> {
  const read = kept === null ? null : readHash(kept)
  const { cost, salt, key } = read ?? NOBODYS
  const derived = await derive(password, salt, cost)
  return derived.length === key.length && timingSafeEqual(derived, key) && read !== null
}
