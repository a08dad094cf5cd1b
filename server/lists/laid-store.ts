import { and, asc, eq, gt, inArray, lt, sql } from 'drizzle-orm'
import type { LaidState } from '#core/lists/laid'
import type { ListName, Values } from '#core/lists/list'
import type { ListReason } from '#core/lists/reason'
import type { Tx } from '../db/client'
import { SECONDS } from '../db/moments'
import { bare, named, read, readOne } from '../db/read'
import { laidFile, laidRow } from '../db/schema/lists'

const f = named(laidFile, 'f')
const r = named(laidRow, 'r')

export interface LaidFile {
  id: string
  list: ListName
  byId: string
  at: string
  name: string
  fileHash: string | null
  state: LaidState
  head: readonly string[]
  columns: readonly (string | null)[] | null
  rows: number
  looked: number
  adds: number
  changes: number
  nothing: number
  refused: number
  gone: number
  reasons: readonly { readonly at: number; readonly reasons: readonly ListReason[] }[]
  notes: readonly string[]
  version: number | null
  trouble: string
  seq: number | null
}
const FILE = {
  id: f.id,
  list: f.list,
  byId: f.byId,
  at: SECONDS(f.at),
  name: f.name,
  fileHash: f.fileHash,
  state: f.state,
  head: f.head,
  columns: f.columns,
  rows: f.rows,
  looked: f.looked,
  adds: f.adds,
  changes: f.changes,
  nothing: f.nothing,
  refused: f.refused,
  gone: f.gone,
  reasons: f.reasons,
  notes: f.notes,
  version: f.version,
  trouble: f.trouble,
  seq: f.seq,
}

export async function insertLaidFile(
  tx: Tx,
  file: { id: string; list: ListName; byId: string; at: Date; name: string; fileHash: string },
): Promise<void> {
  await tx.insert(laidFile).values(file)
}
/**
 * A file that is laid aside. `wait` lets one after the other be at work on it; `skip` finds none where somebody else
 * is.
 */
export const findLaidFile = (tx: Tx, id: string, lock?: 'wait' | 'skip'): Promise<LaidFile | null> =>
  readOne(
    tx,
    FILE,
    sql`from ${f} where ${f.id} = ${id}
      ${lock === undefined ? sql`` : lock === 'wait' ? sql`for update of f` : sql`for update of f skip locked`}`,
  )
/** Files on which a task should be at work, with who laid them aside. */
export const listLaidAtWork = (tx: Tx): Promise<{ id: string; state: LaidState; byId: string }[]> =>
  read(
    tx,
    { id: f.id, state: f.state, byId: f.byId },
    sql`from ${f} where ${f.state} = 'reading' or ${f.state} like 'being %' order by ${f.at}`,
  )
export const findLaidBySeq = (tx: Tx, list: ListName, seq: number): Promise<LaidFile | null> =>
  readOne(tx, FILE, sql`from ${f} where ${f.list} = ${list} and ${f.seq} = ${seq}`)
/** What somebody has laid aside for a list and neither taken nor left. */
export const findOpenLaid = (tx: Tx, list: ListName, byId: string): Promise<LaidFile | null> =>
  readOne(
    tx,
    FILE,
    sql`from ${f} where ${f.list} = ${list} and ${f.byId} = ${byId}
      and ${f.state} not in ('taken', 'left', 'broken', 'being taken back')
      order by ${f.at} desc limit 1`,
  )

export type LaidChange = Partial<
  Pick<
    typeof laidFile.$inferInsert,
    | 'state'
    | 'head'
    | 'columns'
    | 'rows'
    | 'looked'
    | 'adds'
    | 'changes'
    | 'nothing'
    | 'refused'
    | 'gone'
    | 'reasons'
    | 'notes'
    | 'version'
    | 'trouble'
    | 'seq'
    | 'fileHash'
  >
>
export async function setLaidFile(tx: Tx, id: string, change: LaidChange): Promise<void> {
  await tx.update(laidFile).set(change).where(eq(laidFile.id, id))
}

/** Lays rows of cells aside, numbered as they stand in the file. */
export async function insertLaidRows(
  tx: Tx,
  fileId: string,
  rows: readonly { readonly at: number; readonly cells: readonly string[] }[],
): Promise<void> {
  const { fileId: of, at, cells } = laidRow
  await tx.execute(sql`insert into ${laidRow} (${bare(of)}, ${bare(at)}, ${bare(cells)})
    select ${fileId}::uuid, x.n, x.c
    from jsonb_to_recordset(${JSON.stringify(rows.map((l) => ({ n: l.at, c: l.cells })))}::jsonb) as x(n int, c jsonb)`)
}
export async function deleteLaidRows(tx: Tx, fileId: string): Promise<void> {
  await tx.delete(laidRow).where(eq(laidRow.fileId, fileId))
}

export function listLaidRows(
  tx: Tx,
  fileId: string,
  after: number,
  most: number,
): Promise<{ at: number; cells: readonly string[] }[]> {
  return tx
    .select({ at: laidRow.at, cells: laidRow.cells })
    .from(laidRow)
    .where(and(eq(laidRow.fileId, fileId), gt(laidRow.at, after)))
    .orderBy(asc(laidRow.at))
    .limit(most)
}

/** Keys that stand in earlier rows of the file, with the first row of each. */
export async function findEarlierKeys(
  tx: Tx,
  fileId: string,
  keys: readonly string[],
  before: number,
): Promise<Map<string, number>> {
  const found = await tx
    .select({ key: laidRow.key, at: sql<number>`min(${laidRow.at})` })
    .from(laidRow)
    .where(and(eq(laidRow.fileId, fileId), inArray(laidRow.key, [...keys]), lt(laidRow.at, before)))
    .groupBy(laidRow.key)
  return new Map(found.map((x) => [x.key ?? '', x.at]))
}

export interface LookedRow {
  readonly at: number
  readonly key: string
  readonly does: 'adds' | 'changes' | 'nothing' | 'refused'
  readonly entryId: string | null
  readonly before: Values | null
  readonly after: Values | null
}
export async function setLooked(tx: Tx, fileId: string, rows: readonly LookedRow[]): Promise<void> {
  const { key, does, entryId, before, after } = laidRow
  const short = rows.map((l) => ({ n: l.at, k: l.key, d: l.does, e: l.entryId, b: l.before, a: l.after }))
  await tx.execute(sql`update ${laidRow} set ${bare(key)} = x.k, ${bare(does)} = x.d, ${bare(entryId)} = x.e,
      ${bare(before)} = x.b, ${bare(after)} = x.a
    from jsonb_to_recordset(${JSON.stringify(short)}::jsonb) as x(n int, k text, d text, e uuid, b jsonb, a jsonb)
    where ${laidRow.fileId} = ${fileId} and ${laidRow.at} = x.n`)
}
/** Which of some keys stand in the file. */
export async function findLaidKeys(tx: Tx, fileId: string, keys: readonly string[]): Promise<Set<string>> {
  const found = await read(
    tx,
    { key: sql<string>`${r.key}` },
    sql`from ${r} where ${r.fileId} = ${fileId} and ${r.key} = any(${sql.param([...keys])}::text[])`,
  )
  return new Set(found.map((f) => f.key))
}
/** Lays entries behind the rows of a file that it does not name, with what they would be once retired. */
export async function insertGone(
  tx: Tx,
  fileId: string,
  gone: readonly {
    readonly at: number
    readonly key: string
    readonly entryId: string
    readonly before: Values
    readonly after: Values
  }[],
): Promise<void> {
  if (gone.length === 0) return
  const { fileId: of, at, cells, key, does, entryId, before, after } = laidRow
  const short = gone.map((g) => ({ n: g.at, k: g.key, e: g.entryId, b: g.before, a: g.after }))
  await tx.execute(sql`insert into ${laidRow} (${bare(of)}, ${bare(at)}, ${bare(cells)}, ${bare(key)}, ${bare(does)},
      ${bare(entryId)}, ${bare(before)}, ${bare(after)})
    select ${fileId}::uuid, x.n, '[]', x.k, 'gone', x.e, x.b, x.a
    from jsonb_to_recordset(${JSON.stringify(short)}::jsonb) as x(n int, k text, e uuid, b jsonb, a jsonb)`)
}
/** Lets what the file does not name be changed with its rows: retired. */
export async function retireGone(tx: Tx, fileId: string): Promise<void> {
  await tx
    .update(laidRow)
    .set({ does: 'changes' })
    .where(and(eq(laidRow.fileId, fileId), eq(laidRow.does, 'gone')))
}
/** Forgets what rows would do: the columns mean something else now. What lay behind them goes. */
export async function forgetLooked(tx: Tx, fileId: string, lastAt: number): Promise<void> {
  await tx.delete(laidRow).where(and(eq(laidRow.fileId, fileId), gt(laidRow.at, lastAt)))
  await tx
    .update(laidRow)
    .set({ key: null, does: null, entryId: null, before: null, after: null })
    .where(eq(laidRow.fileId, fileId))
}

export interface ChangingRow {
  at: number
  entryId: string
  before: Values | null
  after: Values
}
/** Rows of the file that change something, in their order: some at a time. */
export async function listChanging(tx: Tx, fileId: string, after: number, most: number): Promise<ChangingRow[]> {
  const rows = await read(
    tx,
    { at: r.at, entryId: sql<string>`${r.entryId}`, before: r.before, after: sql<Values>`${r.after}` },
    sql`from ${r} where ${r.fileId} = ${fileId} and ${r.at} > ${after} and ${r.does} in ('adds', 'changes')
      order by ${r.at} limit ${most}`,
  )
  return rows
}
