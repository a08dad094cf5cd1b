import { randomUUID } from 'node:crypto'
import { dayOf, type Day } from '#core/base/day'
import { LISTS } from '#core/lists/definitions'
import { keyOf, type ListDefinition, type ListName, type Values } from '#core/lists/list'
import { planRows, retired } from '#core/lists/plan'
import { readRows } from '#core/lists/read-rows'
import type { ListReason } from '#core/lists/reason'
import { waysOf } from '#shared/words/ways'
import type { Context } from '../context'
import type { Db, Tx } from '../db/client'
import { inTransaction } from '../db/transaction'
import { refused } from '../http/problem'
import { findActor } from '../people/actor-reads'
import { enqueue } from '../queue/enqueue'
import { requireOrganisation } from '../settings/reads'
import { eachUnnamed } from './each-entry'
import { findEntries } from './find-entries'
import type { KeptEntry } from './keeper'
import { KEEPERS } from './keepers'
import { knownOf, namedBy, textsIn, type Neighbours } from './known-entries'
import { meantBy } from './plan-file'
import {
  findEarlierKeys,
  findLaidFile,
  findLaidKeys,
  forgetLooked,
  insertGone,
  listLaidRows,
  setLaidFile,
  setLooked,
  type LaidFile,
  type LookedRow,
} from './laid-store'
import { requireLaid } from './lay-file'
import { findVersion } from './list-store'

/** Rows that are looked at in one transaction, and for how long one task goes on. */
const AT_ONCE = 2000
const GOES_ON_MS = 15_000
const MOST_REASONS = 200

/** Looks at a file that was read, by what its columns hold: a task works out what each row would do. */
export async function beginLooking(
  ctx: Context,
  list: ListName,
  id: string,
  columns: readonly (string | null)[],
): Promise<void> {
  const file = await requireLaid(ctx, list, id, 'wait')
  if (file.state !== 'read' && file.state !== 'looked at')
    throw refused([`${file.name} is ${file.state}; wait until that is done.`], {}, 'wrong-state')
  await lookAnew(ctx.tx, file, columns)
}

/** Begins to look at every row again. */
export async function lookAnew(tx: Tx, file: LaidFile, columns: readonly (string | null)[]): Promise<void> {
  await forgetLooked(tx, file.id, lastAt(file))
  await setLaidFile(tx, file.id, {
    state: 'being looked at',
    columns,
    looked: 0,
    adds: 0,
    changes: 0,
    nothing: 0,
    refused: 0,
    gone: 0,
    reasons: [],
    trouble: '',
    version: await findVersion(tx, file.list),
  })
  await enqueue(tx, 'look-at-file', { fileId: file.id })
}

/** Works out what the next rows would do, some in each transaction, until its time is over; another task goes on. */
export async function lookAtRows(db: Db, fileId: string, now: Date): Promise<void> {
  const seen = await findLaidFile(db, fileId)
  const reader = seen === null ? null : await findActor(db, seen.byId, now)
  if (seen === null || reader === null) return
  const list = LISTS[seen.list]
  const { timeZone } = await requireOrganisation(db)
  const today = dayOf(now, timeZone)
  // Other lists are short, and are read once for all rows of this task.
  const others = new Map<ListName, readonly KeptEntry[]>()
  for (const name of namedBy(list)) if (name !== list.name) others.set(name, await KEEPERS[name].read(db, today))
  const { decimalMark: mark, monthFirst } = waysOf(reader.locale)
  const ways = { mark, monthFirst, today }
  for (const end = performance.now() + GOES_ON_MS; performance.now() < end;) {
    const isMore = await inTransaction(db, (tx) => lookAtSome(tx, fileId, list, others, ways))
    if (!isMore) return
  }
  await enqueue(db, 'look-at-file', { fileId })
}

async function lookAtSome(
  tx: Tx,
  fileId: string,
  list: ListDefinition,
  others: Neighbours,
  ways: Parameters<typeof readRows>[3],
): Promise<boolean> {
  const file = await findLaidFile(tx, fileId, 'skip')
  if (file?.state !== 'being looked at') return false
  const laid = await listLaidRows(tx, fileId, file.looked + 1, AT_ONCE)
  const last = laid.at(-1)
  if (last === undefined) {
    await setLaidFile(tx, fileId, { state: 'looked at', gone: await layGone(tx, file, list, ways.today) })
    return false
  }
  const planned = await planSome(tx, file, list, laid, others, ways)
  await setLooked(tx, fileId, planned)
  const of = (does: LookedRow['does']) => planned.filter((r) => r.does === does).length
  await setLaidFile(tx, fileId, {
    looked: last.at - 1,
    adds: file.adds + of('adds'),
    changes: file.changes + of('changes'),
    nothing: file.nothing + of('nothing'),
    refused: file.refused + of('refused'),
    reasons: [
      ...file.reasons,
      ...planned.flatMap((r) => (r.does === 'refused' ? [{ at: r.at, reasons: r.reasons }] : [])),
    ].slice(0, MOST_REASONS),
  })
  return true
}

/** Where its last row stands: its head is the first. */
const lastAt = (file: LaidFile) => file.rows + 1

/** Lays behind the rows what they do not name, so that it can be retired with them; answers with how many. */
async function layGone(tx: Tx, file: LaidFile, list: ListDefinition, today: Day): Promise<number> {
  let count = 0
  for await (const some of eachUnnamed(tx, list, today, (keys) => findLaidKeys(tx, file.id, keys))) {
    await insertGone(
      tx,
      file.id,
      some.map((e, n) => ({
        at: lastAt(file) + 1 + count + n,
        key: keyOf(list, e.values),
        entryId: e.id,
        before: e.values,
        after: retired(list, e.values, today),
      })),
    )
    count += some.length
  }
  return count
}

type Planned = LookedRow & { readonly reasons: readonly ListReason[] }

/** The same reader and the same plan as for a short file, over the entries that these rows mean alone. */
async function planSome(
  tx: Tx,
  file: LaidFile,
  list: ListDefinition,
  laid: readonly { readonly at: number; readonly cells: readonly string[] }[],
  others: Neighbours,
  ways: Parameters<typeof readRows>[3],
): Promise<Planned[]> {
  const columns = file.columns ?? []
  const cells = laid.map((l) => l.cells)
  const atOf = (row: number) => laid[row - 2]?.at ?? row
  const named = await findEntries(tx, list, { keys: textsIn(list, columns, cells, list.name), others: [] }, ways.today)
  const rows = readRows(list, columns, cells, ways, knownOf(new Map([...others, [list.name, named]])))
  const current = await findEntries(tx, list, meantBy(list, rows), ways.today)
  const plan = planRows(
    list,
    rows,
    current.map((e) => e.values),
    ways.today,
  )
  const idOf = new Map(current.map((e) => [keyOf(list, e.values), e.id]))
  const first = laid[0]?.at ?? 0
  const earlier = await findEarlierKeys(
    tx,
    file.id,
    plan.rows.map((r) => keyOf(list, r.after)),
    first,
  )
  return plan.rows.map((r): Planned => {
    const key = keyOf(list, r.after)
    const before = earlier.get(key)
    const isTwice = before !== undefined && r.reasons.length === 0
    const reasons: readonly ListReason[] = isTwice
      ? [{ code: 'twice', row: before }]
      : r.reasons.map((x) => (x.code === 'twice' ? { ...x, row: atOf(x.row) } : x))
    const does = isTwice ? 'refused' : r.does
    const changes = does === 'adds' || does === 'changes'
    return {
      at: atOf(r.at),
      key,
      does,
      entryId: changes ? (idOf.get(key) ?? newId(list, r.after)) : null,
      before: changes ? r.before : null,
      after: changes ? r.after : null,
      reasons,
    }
  })
}

const newId = (list: ListDefinition, values: Values): string => KEEPERS[list.name].newId?.(values) ?? randomUUID()
