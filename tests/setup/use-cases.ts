import { randomUUID } from 'node:crypto'
import pg from 'pg'
import { inject } from 'vitest'
import type { Context } from '../../server/context'
import { openDatabase, type Db } from '../../server/db/client'
import { inTransaction } from '../../server/db/transaction'
import { Problem } from '../../server/http/problem'
import { findActor } from '../../server/people/actor-reads'
import { takeTasks } from '../../server/queue/take-tasks'
import { moment, personId } from './rekko'

/** The use cases themselves on a database of their own, without a server: tasks are not carried out. */
export interface UseCases {
  readonly db: Db
  /** Where the database is, with all rights. */
  readonly url: string
  /** A statement with all rights, to arrange what no use case does. */
  readonly arrange: (text: string, values?: unknown[]) => Promise<void>
  /** Does something as a person, in one transaction; at the tests' moment, unless another is named. */
  readonly as: <T>(name: string, work: (ctx: Context) => Promise<T>, at?: Date) => Promise<T>
  readonly stop: () => Promise<void>
}

export async function openUseCases(): Promise<UseCases> {
  const { urls, template } = inject('cluster')
  const name = `use_cases_${process.pid}_${randomUUID().slice(0, 8)}`
  const at = (role: 'postgres' | 'rekko_app', database: string) => urls[role].replace(/DATABASE$/, database)
  Object.assign(process.env, {
    DATABASE_URL: at('rekko_app', name),
    REKKO_SESSION_SECRET: 'a-secret-for-tests-that-is-long-enough',
  })
  const admin = new pg.Client({ connectionString: at('postgres', 'postgres') })
  await admin.connect()
  await admin.query(`create database "${name}" owner rekko_owner template "${template}" strategy file_copy`)
  const owner = new pg.Client({ connectionString: at('postgres', name) })
  await owner.connect()
  const { db, pool } = openDatabase(at('rekko_app', name), 2)
  takeTasks()
  return {
    db,
    url: at('postgres', name),
    arrange: async (text, values) => {
      await owner.query(text, values)
    },
    as: (who, work, at) =>
      inTransaction(db, async (tx) => {
        const now = at ?? moment()
        const actor = await findActor(tx, personId(who), now)
        if (actor === null) throw new Problem(401, 'not-signed-in', `${who} is gone`)
        return work({ tx, now, actor })
      }),
    stop: async () => {
      await pool.end()
      await owner.end()
      await admin.query(`drop database "${name}" with (force)`)
      await admin.end()
    },
  }
}
