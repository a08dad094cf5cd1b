import { randomUUID } from 'node:crypto'
import type { Day } from '#core/base/day'
import { keyOf, type ListDefinition, type ListName, type Values } from '#core/lists/list'
import { guardedColumns } from '#core/lists/held'
import { isSound, retired } from '#core/lists/plan'
import type { GivenRows } from '#shared/contract/lists'
import { an } from '#shared/words/format'
import { LIST_WORDS, sayListReason } from '#shared/words/lists'
import { appendEventForSeq } from '../audit/store'
import type { Context } from '../context'
import { sqlState } from '../db/client'
import { refused, stale } from '../http/problem'
import { notifyChange } from '../live/notify'
import { findAddresses } from '../people/person-reads'
import { enqueue } from '../queue/enqueue'
import type { KeptEntry } from './keeper'
import { KEEPERS } from './keepers'
import { findEntries } from './find-entries'
import { idsOf, labelsIn, readNeighbours } from './known-entries'
import { divideChanges, layAside } from './hold-changes'
import { LIST_SUBJECTS, type ListChange, type ListChanged } from './list-event'
import { lockList, setVersion } from './list-store'
import { staysAdministrator } from './person-store'
import { planGiven } from './plan-file'
import { requireList } from './read-list'

/** The lists by which people, budgets and what is coded to them are found: routes that are open follow them. */
const MOVES_ROUTES: readonly ListName[] = [
  'people',
  'roles',
  'limits',
  'departments',
  'accounts',
  'categories',
  'budget-lines',
]

/** A statement that would give two entries what only one may have. */
const TWICE = '23505'

/**
 * Takes rows into a list, all or none, at the version that was seen: new entries, changed ones, and what the rows do
 * not name kept or retired. One event holds each entry before and after.
 */
export async function keepRows(
  ctx: Context,
  name: ListName,
  version: number,
  given: GivenRows & {
    readonly source: string
    readonly gone: 'keep' | 'retire'
    /** Rows that are all to be new entries; one that is there already is refused instead of changed. */
    readonly onlyNew?: boolean
  },
): Promise<{ version: number; seq: number | null; changes: number; held: number }> {
  const list = requireList(ctx, name)
  if ((await lockList(ctx.tx, name)) !== version) throw stale(`the list of ${LIST_WORDS[name].many}`)
  const { plan, entries, today, gone } = await planGiven(ctx, list, given, given.gone === 'retire' ? Infinity : 0)
  if (!isSound(plan)) {
    const wrong = plan.rows.filter((r) => r.does === 'refused')
    throw refused(wrong.slice(0, 20).flatMap((r) => r.reasons.map((x) => `Row ${r.at}: ${sayListReason(list, x)}`)))
  }
  const there = given.onlyNew === true ? plan.rows.find((r) => r.does !== 'adds') : undefined
  if (there !== undefined) {
    const { name: called = '' } = there.after
    throw refused([`There is ${an(LIST_WORDS[name].one)} with this key already${called === '' ? '' : `: ${called}`}.`])
  }
  const idByKey = new Map(entries.map((e) => [keyOf(list, e.values), e.id]))
  const idOf = (values: Values) => idByKey.get(keyOf(list, values)) ?? ''
  const changes: ListChange[] = plan.rows.flatMap((r) =>
    r.does === 'adds'
      ? [{ id: newId(list, r.after), before: null, after: r.after }]
      : r.does === 'changes'
        ? [{ id: idOf(r.after), before: r.before, after: r.after }]
        : [],
  )
  if (given.gone === 'retire')
    for (const { id, values } of gone) changes.push({ id, before: values, after: retired(list, values, today) })
  const { now, held } = await divideChanges(ctx, list, changes)
  await refuseOwn(ctx, list, now)
  await layAside(ctx, list, held, today)
  if (now.length === 0) {
    if (held.length > 0) await notifyChange(ctx.tx, { kind: 'settings', id: LIST_SUBJECTS[name] })
    return { version, seq: null, changes: 0, held: held.length }
  }
  await writeChanges(ctx, list, now, today)
  const seq = await closeChange(ctx, list, version, { source: given.source, undoes: null, changes: now })
  return { version: version + 1, seq, changes: now.length, held: held.length }
}

/**
 * While an organisation is set up, nobody changes their own limits and roles; later a second person confirms them.
 * Nobody ever gives themselves a role for a part: it cannot half hold until somebody confirms it.
 */
export async function refuseOwn(
  { tx, actor }: Context,
  list: ListDefinition,
  changes: readonly ListChange[],
): Promise<void> {
  const guarded = list.name === 'roles' ? list.columns.map((c) => c.key) : guardedColumns(list, true)
  if (guarded.length === 0) return
  const { email = '' } = (await findAddresses(tx, [actor.id])).get(actor.id) ?? {}
  const isOwn = (c: ListChange) =>
    list.name === 'people' ? c.id === actor.id : (c.after ?? c.before)?.person === email.toLowerCase()
  if (changes.some((c) => isOwn(c) && guarded.some((k) => (c.before?.[k] ?? '') !== (c.after?.[k] ?? ''))))
    throw refused(['Your own limits and roles are changed by another administrator; leave your row out, or as it is.'])
}

const newId = (list: ListDefinition, values: Values): string => KEEPERS[list.name].newId?.(values) ?? randomUUID()

/** Writes entries as they are to be; refused with a sentence where two would share what only one may have. */
export async function writeChanges(
  ctx: Context,
  list: ListDefinition,
  changes: readonly ListChange[],
  today: Day,
): Promise<void> {
  const keeper = KEEPERS[list.name]
  const entryOf = (c: ListChange): KeptEntry[] => (c.after === null ? [] : [{ id: c.id, values: c.after }])
  const added = changes.filter((c) => c.before === null).flatMap(entryOf)
  const changed = changes.filter((c) => c.before !== null).flatMap(entryOf)
  const labels = (of: ListName) =>
    labelsIn(
      list,
      [...added, ...changed].map((e) => e.values),
      of,
    )
  const own = await findEntries(ctx.tx, list, { keys: labels(list.name), others: [] }, today)
  const neighbours = await readNeighbours(ctx.tx, list, own, today, labels)
  const ids = idsOf(neighbours, list.name, added)
  try {
    if (added.length > 0) await keeper.insert(ctx.tx, added, ids, today)
    if (changed.length > 0) await keeper.update(ctx.tx, changed, ids, today)
    await keeper.follow?.(ctx, [...added, ...changed], ids)
  } catch (error) {
    if (sqlState(error) === TWICE)
      throw refused([
        `Two ${LIST_WORDS[list.name].many} would share what only one may have: ${LIST_WORDS[list.name].once}.`,
      ])
    throw error
  }
  if (list.name === 'people' && !(await staysAdministrator(ctx.tx)))
    throw refused(['Nobody would be an administrator for good; make somebody else one first.'])
}

/** Raises the version, appends the event, and tells whoever looks; open routes follow people and departments. */
export async function closeChange(
  ctx: Context,
  list: ListDefinition,
  version: number,
  change: ListChanged,
): Promise<number> {
  await setVersion(ctx.tx, list.name, version + 1)
  const seq = await appendEventForSeq(ctx, {
    type: 'list changed',
    subjectKind: 'list',
    subjectId: LIST_SUBJECTS[list.name],
    after: { list: list.name, ...change },
  })
  if (MOVES_ROUTES.includes(list.name)) await enqueue(ctx.tx, 'route-all-again', {})
  await notifyChange(ctx.tx, { kind: 'settings', id: LIST_SUBJECTS[list.name] })
  return seq
}
