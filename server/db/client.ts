import { NodePgDatabase, NodePgDriver } from 'drizzle-orm/node-postgres'
import type { Logger } from 'drizzle-orm'
import type { Writable } from 'node:stream'
import pg from 'pg'
import { ALIKE } from './pattern'
import { QuickDialect } from './statement'

const NUMERIC = 1700
// Trailing zeros are the column's scale, not information: 312.500000 is read as 312.5.
pg.types.setTypeParser(NUMERIC, (text: string) => (text.includes('.') ? text.replace(/\.?0+$/, '') : text))

/** One connection of the pool's, to be given back; one that was lost is not used again. */
export interface Connection {
  readonly statements: NodePgDatabase
  readonly release: (isLost: boolean) => void
}
/** A database: each statement stands by itself, on any connection. */
export type Db = NodePgDatabase & { readonly connect: () => Promise<Connection> }
/** A transaction, or the pool where one statement is enough. */
export type Tx = Pick<Db, 'select' | 'selectDistinct' | 'insert' | 'update' | 'delete' | 'execute'>

export interface Database {
  readonly db: Db
  readonly pool: pg.Pool
}

/**
 * Texts of statements, to the names under which a connection keeps them prepared; texts put together freely stay
 * within a bound.
 */
const PREPARED = new Map<string, string | null>()
const MOST_PREPARED = 400
/**
 * What is looked for by a pattern is planned for that pattern, each time: a plan for any of them, which PostgreSQL
 * turns to for statements that it knows, reads ten times as much for one that fits little.
 */
const BY_PATTERN = /\bi?like\b|<%/

function preparedName(text: string): string | null {
  const known = PREPARED.get(text)
  if (known !== undefined) return known
  if (PREPARED.size >= MOST_PREPARED) return null
  const name = BY_PATTERN.test(text) ? null : `s${PREPARED.size}`
  PREPARED.set(text, name)
  return name
}

/**
 * A connection that has each statement parsed once, since the same statements come again with every request, and that
 * writes to its socket once for all statements that are sent before anything else happens.
 */
class PreparingClient extends pg.Client {
  #isGathering = false

  #gather(): void {
    if (this.#isGathering) return
    this.#isGathering = true
    const { stream } = (this as unknown as { connection: { stream: Writable } }).connection
    stream.cork()
    process.nextTick(() => {
      this.#isGathering = false
      stream.uncork()
    })
  }

  override query(...args: unknown[]): never {
    this.#gather()
    const [config, values] = args as [{ text?: string; name?: string; values?: unknown[] } | string, unknown]
    if (
      typeof config === 'object' &&
      typeof config.text === 'string' &&
      config.name === undefined &&
      Array.isArray(values) &&
      values.length > 0
    ) {
      const name = preparedName(config.text)
      if (name !== null) args[0] = { ...config, name }
    }
    return (super.query as (...all: unknown[]) => never).apply(this, args)
  }
}

/**
 * Compiling a statement costs more than running ours: a search that takes 30 ms took a second where the planner
 * expected much.
 */
const NO_JIT = '-c jit=off'
/** What is read is nearly always in memory or on a disk without a head: jumping costs hardly more than reading on. */
const QUICK_JUMPS = '-c random_page_cost=1.1'
/** From which likeness on `<%` counts a word as meant, so that its index finds what `word_similarity` would. */
const LIKENESS = `-c pg_trgm.word_similarity_threshold=${ALIKE}`
/** How PostgreSQL is to plan; whoever measures statements beside ours asks for the same. */
export const PLANNING = [NO_JIT, QUICK_JUMPS, LIKENESS].join(' ')
/** What waits too long is given up and said to be: a statement, a lock, a transaction whose work hangs. */
const LIMITS = '-c statement_timeout=30s -c lock_timeout=20s -c idle_in_transaction_session_timeout=60s'
const CONNECTION_WAITS_MS = 20_000
/** What a database that hangs does not answer is given up a little after it would have given it up itself. */
const ANSWER_WAITS_MS = 35_000

const ignore = () => undefined
const DIALECT = new QuickDialect()

/**
 * Opens a pool; a lost connection is reported by the next statement, not by the process dying. `logger` hears of every
 * statement.
 */
export function openDatabase(url: string, max = 10, logger?: Logger): Database {
  const pool = new pg.Pool({
    Client: PreparingClient,
    connectionString: url,
    max,
    application_name: 'rekko',
    options: `${PLANNING} ${LIMITS}`,
    connectionTimeoutMillis: CONNECTION_WAITS_MS,
    query_timeout: ANSWER_WAITS_MS,
    keepAlive: true,
    // What does not wait for an answer is sent at once, and answered in its order.
    pipeline: true,
  })
  pool.on('error', ignore)
  const over = (client: pg.Pool | pg.PoolClient) =>
    new NodePgDatabase(
      DIALECT,
      new NodePgDriver(client, DIALECT, logger === undefined ? {} : { logger }).createSession(undefined),
      undefined,
    )
  const connect = async (): Promise<Connection> => {
    const client = await pool.connect()
    // Between two statements nobody listens; without this its loss would end the process.
    client.on('error', ignore)
    const release = (isLost: boolean) => {
      client.off('error', ignore)
      client.release(isLost)
    }
    return { statements: over(client), release }
  }
  return { db: Object.assign(over(pool), { connect }), pool }
}

/** The SQLSTATE behind an error, also when the query builder has wrapped it. */
export function sqlState(error: unknown): string | null {
  for (let at: unknown = error; at instanceof Error; at = at.cause) {
    if ('code' in at && typeof at.code === 'string') return at.code
  }
  return null
}
