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
  /** Where answers to mails come in; null: nowhere. */
  readonly answers: {
    /** The port on loopback at which letters are taken by SMTP. */
    readonly port: number
    /** The domain of the addresses that are answered. */
    readonly domain: string
    /** The name by which the mail server in front says what it found out of a sender; null: Rekko looks itself. */
    readonly relay: string | null
  } | null
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
    answers: readAnswers(env),
    idleMinutes: Number(env.REKKO_IDLE_MINUTES || '480'),
    sessionDays: Number(env.REKKO_SESSION_DAYS || '14'),
    trustedProxies: readProxies(env.REKKO_TRUSTED_PROXIES ?? ''),
    root: isAbsolute(root) ? root : join(process.cwd(), root),
  }
  return known
}

function readAnswers(env: NodeJS.ProcessEnv): Environment['answers'] {
  const [port, domain] = [env.REKKO_ANSWERS_PORT ?? '', (env.REKKO_ANSWERS_DOMAIN ?? '').toLowerCase()]
  if (port === '' && domain === '') return null
  if (!/^[1-9]\d{0,4}$/.test(port) || domain === '')
    throw new Error('Set both REKKO_ANSWERS_PORT, a port, and REKKO_ANSWERS_DOMAIN, or neither.')
  return { port: Number(port), domain, relay: env.REKKO_ANSWERS_RELAY || null }
}

/** An empty variable counts as false. */
export function isTrue(value: string | undefined): boolean {
  return value === '1' || value === 'true' || value === 'yes'
}
