import { and, eq, gt, inArray, isNull, sql, type SQL } from 'drizzle-orm'
import { drizzle } from 'drizzle-orm/node-postgres'
import { PgDialect } from 'drizzle-orm/pg-core'
import { expect, test } from 'vitest'
import { named } from './read'
import { approvalRoute } from './schema/approval'
import { document } from './schema/document'
import { event } from './schema/audit'
import { QuickDialect } from './statement'

const d = named(document, 'd')
const r = named(approvalRoute, 'r')
const db = drizzle.mock()
const moment = new Date('2026-11-26T08:00:00Z')

/** Source of each: Drizzle's own dialect, beside which ours must not differ. */
const STATEMENTS: [what: string, statement: SQL][] = [
  ['columns, sources and values', sql`select ${d.id}, ${r.amount} from ${d} join ${r} on ${r.documentId} = ${d.id}`],
  ['values of every kind', sql`select ${1}, ${'a'}, ${null}, ${true}, ${moment}, ${sql.param(['x', 'y'])}`],
  ['a list in brackets', sql`select 1 from ${d} where ${d.state} in ${['draft', 'approved']}`],
  ['nothing between', sql`select 1${undefined} from ${document}`],
  ['names and text', sql`select ${sql.identifier('odd')} ${sql.raw('from x')}`],
  ['pieces of pieces', sql`select 1 where ${and(eq(d.id, 'a'), gt(d.version, 2), isNull(d.number))}`],
  ['a list of columns', sql`select 1 where ${inArray(document.state, ['draft'])}`],
  [
    'an insert',
    db
      .insert(event)
      .values({ type: 't', at: moment, subjectKind: 'x', after: { a: 1 } } as never)
      .getSQL(),
  ],
  [
    'an update',
    db
      .update(document)
      .set({ version: sql`${document.version} + 1` })
      .where(eq(document.id, 'a'))
      .getSQL(),
  ],
  ['a select', db.select({ id: document.id }).from(document).where(eq(document.number, 'R')).limit(3).getSQL()],
  ['a query in a query', sql`select 1 where exists ${db.select({ id: document.id }).from(document)}`],
]

test.each(STATEMENTS)('%s are written as Drizzle writes them', (_, statement) => {
  const { sql: text, params } = new QuickDialect().sqlToQuery(statement)
  const slow = new PgDialect().sqlToQuery(statement)
  expect({ text, params }).toEqual({ text: slow.sql, params: slow.params })
})
