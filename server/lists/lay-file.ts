import { randomUUID } from 'node:crypto'
import type { ListName } from '#core/lists/list'
import { recogniseColumns } from '#core/lists/read-rows'
import { LISTS } from '#core/lists/definitions'
import type { Context } from '../context'
import type { Db, Tx } from '../db/client'
import { inTransaction } from '../db/transaction'
import { LARGEST_UPLOAD } from '../files/check-upload'
import { findFile, keepFile } from '../files/store'
import { inWorkshop } from '../files/workshop'
import { invalid, notFound, Problem, refused } from '../http/problem'
import { enqueue } from '../queue/enqueue'
import {
  deleteLaidRows,
  findLaidFile,
  findOpenLaid,
  insertLaidFile,
  insertLaidRows,
  setLaidFile,
  type LaidFile,
} from './laid-store'
import { requireList } from './read-list'

/** Rows that are read and kept at a time, each time in a transaction of its own. */
const AT_ONCE = 5000
const MOST_LAID = 200_000
/** Lists whose changes partly wait for a second person, or hang together as a whole, come in shorter files. */
const SHORT_ONLY: readonly ListName[] = [
  'people',
  'roles',
  'limits',
  'departments',
  'categories',
  'holidays',
  'taxes',
  'opening',
  'reasons',
]

/** Lays a long file aside for a list: it is read by a task, some rows at a time. One of each person at a time. */
export async function layFile(ctx: Context, list: ListName, bytes: Buffer, name: string): Promise<{ id: string }> {
  requireList(ctx, list)
  if (SHORT_ONLY.includes(list)) throw invalid('This list takes files of up to 5,000 rows; divide it.')
  if (bytes.length === 0) throw invalid('This file is empty.')
  if (bytes.length > LARGEST_UPLOAD)
    throw new Problem(413, 'too-large', 'This file is larger than 15 MB. Divide it, or take out what is not needed.')
  const open = await findOpenLaid(ctx.tx, list, ctx.actor.id)
  if (open !== null) throw refused([`${open.name} is still laid aside; take it or leave it first.`], { open: open.id })
  const id = randomUUID()
  const fileHash = await keepFile(ctx.tx, bytes, 'text/csv', ctx.now)
  await insertLaidFile(ctx.tx, { id, list, byId: ctx.actor.id, at: ctx.now, name: name.slice(0, 300), fileHash })
  await enqueue(ctx.tx, 'lay-file', { fileId: id })
  return { id }
}

/** A file that one laid aside oneself. */
export async function requireLaid(ctx: Context, list: ListName, id: string, lock?: 'wait'): Promise<LaidFile> {
  requireList(ctx, list)
  const file = await findLaidFile(ctx.tx, id, lock)
  if (file === null || file.list !== list || file.byId !== ctx.actor.id) throw notFound('This file')
  return file
}

/** Leaves a file as it is, whatever is being done with it: nothing of it is kept. */
export async function leaveFile(ctx: Context, list: ListName, id: string): Promise<void> {
  const file = await requireLaid(ctx, list, id, 'wait')
  if (file.state === 'taken' || file.state === 'left') throw refused(['It is done with already.'])
  await dropLaid(ctx.tx, file, { state: 'left' })
}

async function dropLaid(tx: Tx, file: LaidFile, change: { state: 'left' | 'broken'; trouble?: string }): Promise<void> {
  await setLaidFile(tx, file.id, { ...change, fileHash: null })
  await deleteLaidRows(tx, file.id)
  if (file.fileHash !== null) await enqueue(tx, 'drop-files', { hashes: [file.fileHash] })
}

/**
 * Reads the next rows of a file and lays them aside, in one transaction; then there is a task for those behind them.
 * Whoever died over it begins with the rows that were not laid.
 */
export async function layRows(db: Db, fileId: string): Promise<void> {
  const seen = await findLaidFile(db, fileId)
  if (seen?.state !== 'reading' || seen.fileHash === null) return
  const kept = await findFile(db, seen.fileHash)
  const from = seen.rows === 0 ? 0 : seen.rows + 1
  const part = await (
    kept === null ? Promise.reject(invalid('The file is gone.')) : inWorkshop('read-rows', kept.bytes, from, AT_ONCE)
  ).catch((error: unknown) => {
    if (error instanceof Problem) return error
    throw error
  })
  await inTransaction(db, async (tx) => {
    const file = await findLaidFile(tx, fileId, 'skip')
    if (file?.state !== 'reading' || file.rows !== seen.rows) return
    if (part instanceof Problem) {
      await dropLaid(tx, file, { state: 'broken', trouble: part.message })
      return
    }
    const [head, rows] = from === 0 ? [part.rows[0] ?? [], part.rows.slice(1)] : [file.head, part.rows]
    const total = file.rows + rows.length
    if (total > MOST_LAID) {
      await dropLaid(tx, file, { state: 'broken', trouble: `It has more than ${MOST_LAID} rows; divide it.` })
      return
    }
    await insertLaidRows(
      tx,
      fileId,
      rows.map((cells, i) => ({ at: file.rows + i + 2, cells })),
    )
    await setLaidFile(tx, fileId, {
      rows: total,
      notes: part.notes,
      ...(from === 0 ? { head, columns: recogniseColumns(LISTS[file.list], head) } : {}),
      ...(part.more ? {} : { state: 'read' as const }),
    })
    if (part.more) await enqueue(tx, 'lay-file', { fileId })
  })
}
