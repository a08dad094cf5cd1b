import type { BlockList } from 'node:net'
import { isAbsolute, join } from 'node:path'
import { readProxies } from './http/address-of'

/** Everything that is configured by environment variables; docs/operations.md describes each. */
export interface Environment {
  readonly databaseUrl: string
  readonly sessionSecret: string
  readonly cookieSecure: boolean
  readonly isDemo: boolean
  readonly smtpUrl: string
  readonly publicUrl: string
  readonly idleMinutes: number
  /** A session ends so long after it began, however busy it was. */
  readonly sessionDays: number
  /** Whose word about where a request comes from is believed. */
  readonly trustedProxies: BlockList
  /** Where the packages lie from which fonts for PDFs are read. */
  readonly root: string
}

let known: Environment | null = null

/** Reads and checks the environment once; throws a sentence that says what to set. */
export function environment(): Environment {
  if (known !== null) return known
  const env = process.env
  const isDemo = isTrue(env.REKKO_DEMO)
  const sessionSecret = env.REKKO_SESSION_SECRET ?? ''
  if (!env.DATABASE_URL) throw new Error('Set DATABASE_URL to the PostgreSQL database that Rekko uses.')
  if (sessionSecret.length < 32) throw new Error('Set REKKO_SESSION_SECRET to a random text of at least 32 characters.')
  const root = env.REKKO_ROOT ?? process.cwd()
  known = {
    databaseUrl: env.DATABASE_URL,
    sessionSecret,
    cookieSecure: isTrue(env.REKKO_COOKIE_SECURE),
    isDemo,
    smtpUrl: env.REKKO_SMTP_URL ?? 'smtp://127.0.0.1:2525',
    publicUrl: env.REKKO_PUBLIC_URL ?? 'http://127.0.0.1:3000',
    idleMinutes: Number(env.REKKO_IDLE_MINUTES || '480'),
    sessionDays: Number(env.REKKO_SESSION_DAYS || '14'),
    trustedProxies: readProxies(env.REKKO_TRUSTED_PROXIES ?? ''),
    root: isAbsolute(root) ? root : join(process.cwd(), root),
  }
  return known
}

/** An empty variable counts as false. */
export function isTrue(value: string | undefined): boolean {
  return value === '1' || value === 'true' || value === 'yes'
}
