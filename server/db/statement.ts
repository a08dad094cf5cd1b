import { Column, getTableName, Name, Param, Placeholder, SQL, sql, StringChunk, Table } from 'drizzle-orm'
import type { Query, SQLChunk, SQLWrapper } from 'drizzle-orm'
import { PgDialect } from 'drizzle-orm/pg-core'

/** What rows are read from, under a short name. */
export class Source implements SQLWrapper {
  readonly #itself: SQL
  constructor(from: SQL, name: string) {
    this.#itself = sql`${from} ${sql.identifier(name)}`
  }
  getSQL(): SQL {
    return this.#itself
  }
  shouldOmitSQLParens(): boolean {
    return true
  }
}

/**
 * Writes statements as Drizzle does, and quicker: it asks of every piece in turn what it may be, by walking its
 * classes, which costs more than running the statement. What is not known here goes the long way.
 */
export class QuickDialect extends PgDialect {
  override sqlToQuery(statement: SQL): Query {
    const written: Query = { sql: '', params: [] }
    return write(statement.queryChunks, written) ? written : super.sqlToQuery(statement)
  }
}

/** Adds the pieces to what is written; false where one is not known. */
function write(chunks: readonly SQLChunk[], to: Query): boolean {
  return chunks.every((chunk) => {
    if (chunk instanceof StringChunk) return addText(chunk.value.join(''), to)
    if (chunk instanceof Column) return addText(textOf(chunk), to)
    if (chunk instanceof Param) {
      const value: unknown = chunk.value === null ? null : chunk.encoder.mapToDriverValue(chunk.value)
      return !(value instanceof SQL || value instanceof Placeholder) && addValue(value, to)
    }
    if (chunk instanceof SQL || chunk instanceof Source) return write(chunk.getSQL().queryChunks, to)
    if (chunk instanceof Name) return addText(`"${chunk.value}"`, to)
    if (chunk instanceof Table) return addText(`"${getTableName(chunk)}"`, to)
    if (chunk === undefined) return true
    if (Array.isArray(chunk)) return addList(chunk as SQLChunk[], to)
    return (typeof chunk !== 'object' || chunk === null || chunk instanceof Date) && addValue(chunk, to)
  })
}

/** A list in brackets. */
function addList(chunks: readonly SQLChunk[], to: Query): boolean {
  return (
    addText('(', to) && chunks.every((c, i) => (i === 0 || addText(', ', to)) && write([c], to)) && addText(')', to)
  )
}

function addText(text: string, to: Query): true {
  to.sql += text
  return true
}

function addValue(value: unknown, to: Query): true {
  to.params.push(value)
  to.sql += `$${to.params.length}`
  return true
}

const TEXTS = new WeakMap<Column, string>()

function textOf(column: Column): string {
  const known = TEXTS.get(column)
  if (known !== undefined) return known
  const text = `"${getTableName(column.table)}"."${column.name}"`
  TEXTS.set(column, text)
  return text
}
