import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { openDatabase, sqlState, type Database } from '../../server/db/client'
import { inTransaction, sendAlong } from '../../server/db/transaction'
import { openUseCases, type UseCases } from '../setup/use-cases'

let rekko: UseCases
let database: Database
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('create table kept (n int primary key)')
  // One connection, so that what a transaction leaves behind on it would be met by the next.
  database = openDatabase(rekko.url, 1)
})
afterAll(async () => {
  await database.pool.end()
  await rekko.stop()
})

const kept = async () =>
  (await database.db.execute<{ n: number }>(sql`select n from kept order by n`)).rows.map((r) => r.n)
const failure = (work: Promise<unknown>) =>
  work.then(
    () => null,
    (e: unknown) => e,
  )

test('what is sent along is kept with the transaction, in its order, and none of it where one fails', async () => {
  await inTransaction(database.db, async (tx) => {
    await sendAlong(tx, tx.execute(sql`insert into kept values (1)`))
    await sendAlong(tx, tx.execute(sql`update kept set n = 2 where n = 1`))
  })
  expect(await kept()).toEqual([2])
  const doubled = await failure(
    inTransaction(database.db, async (tx) => {
      await sendAlong(tx, tx.execute(sql`insert into kept values (3)`))
      await sendAlong(tx, tx.execute(sql`insert into kept values (2)`))
      await sendAlong(tx, tx.execute(sql`insert into kept values (4)`))
      return 'done'
    }),
  )
  expect(sqlState(doubled)).toBe('23505')
  expect(await kept()).toEqual([2])
})

test('it is the first failure that is told, also where a later statement was waited for', async () => {
  const doubled = await failure(
    inTransaction(database.db, async (tx) => {
      await sendAlong(tx, tx.execute(sql`insert into kept values (2)`))
      await tx.execute(sql`select 1`)
    }),
  )
  expect(sqlState(doubled)).toBe('23505')
  const refused = await failure(
    inTransaction(database.db, async (tx) => {
      await sendAlong(tx, tx.execute(sql`insert into kept values (5)`))
      throw new Error('refused')
    }),
  )
  expect(String(refused)).toBe('Error: refused')
  expect(await kept()).toEqual([2])
})

test('a connection that is lost in the middle is heard of, and the next transaction has another', async () => {
  const lost = await failure(
    inTransaction(database.db, async (tx) => {
      const { rows } = await tx.execute<{ pid: number }>(sql`select pg_backend_pid() as pid`)
      await rekko.arrange('select pg_terminate_backend($1)', [rows[0]?.pid])
      await sendAlong(tx, tx.execute(sql`insert into kept values (6)`))
    }),
  )
  expect(lost).toBeInstanceOf(Error)
  await inTransaction(database.db, (tx) => sendAlong(tx, tx.execute(sql`insert into kept values (7)`)))
  expect(await kept()).toEqual([2, 7])
})

test('without a transaction a statement sent along is waited for', async () => {
  await sendAlong(database.db, database.db.execute(sql`insert into kept values (8)`))
  expect(await kept()).toEqual([2, 7, 8])
  const doubled = failure(sendAlong(database.db, database.db.execute(sql`insert into kept values (8)`)))
  expect(sqlState(await doubled)).toBe('23505')
})

test('what is entered into the ledger has a balance that moves with it', async () => {
  const stray = failure(
    rekko.arrange(
      `insert into budget_entry (at, budget_line_id, period, stage, amount, document_kind, document_id, line_id,
         coding_at, cause)
       select now(), id, 13, 'reserved', 1, 'requisition', id, id, 0, 'send' from budget_line limit 1`,
    ),
  )
  expect(await stray).toMatchObject({ constraint: 'budget_entry_balance' })
})
