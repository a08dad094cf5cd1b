import { Column, sql, type GetColumnData, type SQL, type SQLWrapper, type Table } from 'drizzle-orm'
import { alias, type PgTable } from 'drizzle-orm/pg-core'
import type { Tx } from './client'
import { Source } from './statement'

/** What a statement may name of some tables: where they stand behind `from`, and each of their columns. */
export type Named<T extends Table> = SQLWrapper & T['_']['columns']

/**
 * Rows under a short name: put into a statement it is `source name`, and each column is `name.column`. So a column that
 * is renamed in the schema stops the statement from compiling. `tables` are those whose columns the source has.
 */
export function under<A extends PgTable, B extends PgTable = A>(name: string, source: SQL, ...tables: [A, B?]) {
  const columns = Object.assign({}, ...tables.map((t) => (t === undefined ? {} : columnsOf(t, name)))) as object
  return Object.assign(new Source(source, name), columns) as unknown as Named<A> & Named<B>
}

function columnsOf(table: PgTable, name: string): Record<string, Column> {
  const renamed = alias(table, name)
  return Object.fromEntries(Object.entries(renamed).filter(([, c]) => c instanceof Column)) as Record<string, Column>
}

/** A table under a short name. */
export const named = <T extends PgTable>(table: T, name: string): Named<T> => under(name, sql`${table}`, table)

/** A column that the statement's own conditions leave no row without. */
export const sure = <C extends Column>(column: C) => sql<NonNullable<GetColumnData<C>>>`${column}`

/** The name of a column alone, as `set` wants it. */
export const bare = (column: Column): SQL => sql`${sql.identifier(column.name)}`

/** What a row is made of: columns, which bring their type from the schema, and expressions with the type they say. */
export type Fields = Readonly<Record<string, Column | SQL>>
export type Row<F extends Fields> = {
  -readonly [K in keyof F]: F[K] extends Column ? GetColumnData<F[K]> : F[K] extends SQL<infer T> ? T : never
}

interface Around {
  /** What stands before `select`: `with` and its queries. */
  readonly before?: SQL
  readonly distinct?: boolean
}

/** Reads rows: `fields` from what `rest` says, which begins with `from`. */
export async function read<F extends Fields>(tx: Tx, fields: F, rest: SQL, around: Around = {}): Promise<Row<F>[]> {
  const list = Object.entries(fields).map(([name, field]) => sql`${field} as ${sql.identifier(name)}`)
  const distinct = around.distinct === true ? sql`distinct ` : sql``
  const statement = sql`${around.before ?? sql``} select ${distinct}${sql.join(list, sql`, `)} ${rest}`
  const { rows } = await tx.execute(statement)
  const decoders = Object.entries(fields).filter((entry): entry is [string, Column] => entry[1] instanceof Column)
  for (const row of rows)
    for (const [name, column] of decoders) if (row[name] !== null) row[name] = column.mapFromDriverValue(row[name])
  return rows as Row<F>[]
}

/** The first row, or null. */
export async function readOne<F extends Fields>(
  tx: Tx,
  fields: F,
  rest: SQL,
  around: Around = {},
): Promise<Row<F> | null> {
  return (await read(tx, fields, rest, around))[0] ?? null
}

/**
 * Whether there is a row: for conditions of lists that stop early. PostgreSQL would answer `exists` for every row at
 * once, by reading whole tables, where it expects to be asked often; this is asked for one row after another.
 */
export const isThere = (rest: SQL): SQL => sql`coalesce((select true ${rest} limit 1), false)`
