import { dayOf, type Day } from '#core/base/day'
import { LISTS } from '#core/lists/definitions'
import { keyOf, type ListDefinition, type ListName } from '#core/lists/list'
import { retired } from '#core/lists/plan'
import { sayChangedSince } from '#shared/words/lists'
import type { Context } from '../context'
import type { Db, Tx } from '../db/client'
import { inTransaction } from '../db/transaction'
import { refused, Problem } from '../http/problem'
import { REKKO } from '../people/actor'
import { findActor } from '../people/actor-reads'
import { tellPerson } from '../people/tell-person'
import { enqueue } from '../queue/enqueue'
import { requireOrganisation } from '../settings/reads'
import { findEntries } from './find-entries'
import { KEEPERS } from './keepers'
import { closeChange, writeChanges } from './keep-list'
import { LIST_SUBJECTS } from './list-event'
import {
  deleteLaidRows,
  findLaidBySeq,
  findLaidFile,
  listChanging,
  retireGone,
  setLaidFile,
  type ChangingRow,
  type LaidFile,
} from './laid-store'
import { requireLaid } from './lay-file'
import { lockList } from './list-store'
import { lookAnew } from './look-at-laid'
import { removeUnused } from './remove-store'

const AT_ONCE = 1000

/**
 * Takes a file that was looked at, as it was seen, and retires what it does not name where that is said: a task does
 * it, in one transaction.
 */
export async function beginTaking(
  ctx: Context,
  list: ListName,
  id: string,
  gone: 'keep' | 'retire' = 'keep',
): Promise<void> {
  const file = await requireLaid(ctx, list, id, 'wait')
  if (file.state !== 'looked at')
    throw refused([`${file.name} is ${file.state}; it is taken once it was looked at.`], {}, 'wrong-state')
  if (file.refused > 0) throw refused(['Some rows cannot be taken; put them right in the file first.'])
  const away = gone === 'retire' ? file.gone : 0
  if (file.adds + file.changes + away === 0) throw refused(['This file changes nothing.'])
  if (away > 0) await retireGone(ctx.tx, id)
  await setLaidFile(ctx.tx, id, { state: 'being taken', changes: file.changes + away, gone: file.gone - away })
  await enqueue(ctx.tx, 'take-file', { fileId: id })
}

/**
 * Takes every row that changes something, all or none, with one event that names the file. Where the list changed since
 * it was looked at, it is looked at again instead.
 */
export async function takeFile(db: Db, fileId: string, now: Date): Promise<void> {
  await orSay(db, fileId, 'looked at', () =>
    inTransaction(db, async (tx) => {
      const file = await findLaidFile(tx, fileId, 'skip')
      const actor = file === null ? null : await findActor(tx, file.byId, now)
      if (file?.state !== 'being taken' || actor === null) return
      const ctx: Context = { tx, now, actor }
      const version = await lockList(tx, file.list)
      if (version !== file.version) {
        await lookAnew(tx, file, file.columns ?? [])
        await setLaidFile(tx, fileId, { trouble: 'The list was changed meanwhile; the file is looked at again.' })
        return
      }
      const list = LISTS[file.list]
      const today = dayOf(now, (await requireOrganisation(tx)).timeZone)
      await writeSome(ctx, list, fileId, 'after', today)
      const count = file.adds + file.changes
      const change = { source: file.name, undoes: null, changes: [], file: fileId, count }
      const seq = await closeChange(ctx, list, version, change)
      await setLaidFile(tx, fileId, { state: 'taken', seq, fileHash: null })
      if (file.fileHash !== null) await enqueue(tx, 'drop-files', { hashes: [file.fileHash] })
    }),
  )
}

/** A refusal becomes a sentence of the file, which stands as it did; anything else is tried again. */
async function orSay(
  db: Db,
  fileId: string,
  state: 'looked at' | 'taken',
  work: () => Promise<void>,
  tell?: (tx: Tx, file: LaidFile, why: string) => Promise<void>,
): Promise<void> {
  try {
    await work()
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    await inTransaction(db, async (tx) => {
      await setLaidFile(tx, fileId, { state, trouble: error.message })
      const file = await findLaidFile(tx, fileId)
      if (file !== null) await tell?.(tx, file, error.message)
    })
  }
}

/** Writes what the rows of a file say after it, or what was before it, as every change of a list is written. */
const writeSome = (ctx: Context, list: ListDefinition, fileId: string, side: 'before' | 'after', today: Day) =>
  eachSome(ctx, fileId, (some) =>
    writeChanges(
      ctx,
      list,
      some.map((r) => ({ id: r.entryId, before: side === 'after' ? r.before : r.after, after: r[side] })),
      today,
    ),
  )

/** Takes a long file back by its event: a task does it, in one transaction; what it says stands on the file. */
export async function beginTakingBack(ctx: Context, list: ListName, seq: number): Promise<void> {
  const file = await findLaidBySeq(ctx.tx, list, seq)
  if (file?.state !== 'taken') throw refused(['This change is being taken back, or was.'])
  await setLaidFile(ctx.tx, file.id, { state: 'being taken back', trouble: '' })
  await enqueue(ctx.tx, 'take-file-back', { fileId: file.id, byId: ctx.actor.id })
}

export async function takeFileBack(db: Db, fileId: string, byId: string, now: Date): Promise<void> {
  await orSay(
    db,
    fileId,
    'taken',
    () =>
      inTransaction(db, async (tx) => {
        const file = await findLaidFile(tx, fileId, 'skip')
        const actor = await findActor(tx, byId, now)
        if (file?.state !== 'being taken back' || actor === null) return
        const ctx: Context = { tx, now, actor }
        const version = await lockList(tx, file.list)
        const list = LISTS[file.list]
        const today = dayOf(now, (await requireOrganisation(tx)).timeZone)
        await refuseChanged(ctx, list, fileId, today)
        await writeSome(ctx, list, fileId, 'before', today)
        await removeAdded(ctx, list, fileId, today)
        const change = { source: file.name, undoes: file.seq, changes: [], count: file.adds + file.changes }
        await closeChange(ctx, list, version, change)
        await setLaidFile(tx, fileId, { state: 'left' })
        await deleteLaidRows(tx, fileId)
      }),
    // Nobody waits for it at a page: whoever asked hears of it.
    (tx, file, why) =>
      tellPerson(
        { tx, now, actor: REKKO },
        byId,
        { kind: 'settings', id: LIST_SUBJECTS[file.list] },
        { code: 'file-stays', file: file.name, why },
        { path: `/set-up/lists/${file.list}` },
      ),
  )
}

async function refuseChanged(ctx: Context, list: ListDefinition, fileId: string, today: Day): Promise<void> {
  let since = 0
  await eachSome(ctx, fileId, async (some) => {
    const keys = some.map((r) => keyOf(list, r.after))
    const now = new Map((await findEntries(ctx.tx, list, { keys, others: [] }, today)).map((e) => [e.id, e.values]))
    since += some.filter((r) => {
      const is = now.get(r.entryId)
      return is === undefined || list.columns.some((c) => is[c.key] !== r.after[c.key])
    }).length
  })
  if (since > 0) throw refused([sayChangedSince(since)])
}

/** What was added goes, the last first; what something names meanwhile is retired. */
async function removeAdded(ctx: Context, list: ListDefinition, fileId: string, today: Day): Promise<void> {
  const keeper = KEEPERS[list.name]
  await eachSome(ctx, fileId, async (some) => {
    const added = some.filter((r) => r.before === null)
    const stay = await removeUnused(
      ctx.tx,
      keeper,
      added.map((r) => r.entryId),
    )
    const left = added.filter((r) => stay.has(r.entryId))
    if (left.length === 0) return
    const away = left.map((r) => ({ id: r.entryId, before: r.after, after: retired(list, r.after, today) }))
    await writeChanges(ctx, list, away, today)
  })
}

async function eachSome(ctx: Context, fileId: string, work: (some: ChangingRow[]) => Promise<void>): Promise<void> {
  for (let at = 0; ;) {
    const some = await listChanging(ctx.tx, fileId, at, AT_ONCE)
    const last = some.at(-1)
    if (last === undefined) return
    at = last.at
    await work(some)
  }
}
