import { createHash } from 'node:crypto'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { notFound, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { raiseList } from '../settings/store'
import { countNaming, listItemsTwice, lockSuppliers, moveNaming, setMerged, type ItemTwice } from './merge-store'
import { findRecord, findBankChange, type RecordRow } from '../supplier/record-reads'

/**
 * What merging one supplier into another would do, and a mark by which it is told that neither of them, nor which items
 * both have, changed since; that one more request names it changes nothing of what was reviewed.
 */
export interface Merging {
  readonly from: { readonly id: string; readonly number: string; readonly name: string }
  readonly into: { readonly id: string; readonly number: string; readonly name: string }
  readonly moves: Awaited<ReturnType<typeof countNaming>>
  readonly twice: ItemTwice[]
  /** Why it is not possible now, in sentences; empty where it is. */
  readonly hinders: string[]
  readonly seen: string
}

/** Looks at what would move when `from` turns out to be `into`; changes nothing. */
export async function reviewMerging(ctx: Context, from: string, into: string): Promise<Merging> {
  const [gone, kept] = [await requireKnown(ctx, from), await requireKnown(ctx, into)]
  const moves = await countNaming(ctx.tx, from)
  const twice = await listItemsTwice(ctx.tx, from, into)
  const hinders = await hindrancesOf(ctx, { from, gone, into, kept })
  const seen = createHash('sha256')
    .update(JSON.stringify([from, gone.version, into, kept.version, twice.map((t) => [t.id, t.keptId])]))
    .digest('hex')
    .slice(0, 16)
  return {
    from: { id: from, number: gone.number, name: gone.name },
    into: { id: into, number: kept.number, name: kept.name },
    moves,
    twice,
    hinders,
    seen,
  }
}

async function requireKnown(ctx: Context, id: string): Promise<RecordRow> {
  const record = await findRecord(ctx.tx, id)
  if (record === null) throw notFound('This supplier')
  return record
}

async function hindrancesOf(
  ctx: Context,
  of: { from: string; gone: RecordRow; into: string; kept: RecordRow },
): Promise<string[]> {
  const { gone, kept } = of
  const why: string[] = []
  if (of.from === of.into) why.push('A supplier cannot be merged into itself.')
  if (gone.standing === 'merged') why.push(`${gone.name} was merged already, into ${gone.mergedInto ?? 'another'}.`)
  if (gone.standing === 'proposed') why.push(`${gone.name} is only proposed; refuse it, and say which one to take.`)
  if (!['active', 'on hold'].includes(kept.standing)) why.push(`${kept.name} is ${kept.standing}; nothing moves to it.`)
  for (const id of new Set([of.from, of.into]))
    if ((await findBankChange(ctx.tx, id)) !== null)
      why.push(
        `Bank details of ${id === of.from ? gone.name : kept.name} wait for a second person; decide on them first.`,
      )
  return why
}

/**
 * Makes two suppliers one, as it was reviewed: what names `from` names `into`, items that both have are retired in
 * favour of the one that stays, and `from` stays findable as what it became. Orders that were sent keep what was sent.
 */
export async function mergeSuppliers(ctx: Context, from: string, into: string, seen: string): Promise<void> {
  await raiseList(ctx.tx, 'suppliers')
  await raiseList(ctx.tx, 'items')
  await lockSuppliers(ctx.tx, [from, into])
  const merging = await reviewMerging(ctx, from, into)
  if (merging.hinders.length > 0) throw refused(merging.hinders)
  if (merging.seen !== seen)
    throw refused(['What names these suppliers changed since you looked; look at it once more.'], {}, 'stale')
  await moveNaming(ctx.tx, from, into, merging.twice)
  await setMerged(ctx.tx, from, into, ctx.now)
  const { moves, twice } = merging
  await appendEvent(ctx, {
    type: 'merged',
    subjectKind: 'supplier',
    subjectId: from,
    after: { into, moves, itemsRetired: twice.map((t) => ({ id: t.id, successorId: t.keptId })) },
  })
  await appendEvent(ctx, { type: 'took in', subjectKind: 'supplier', subjectId: into, after: { from, moves } })
  for (const id of [from, into]) await notifyChange(ctx.tx, { kind: 'settings', id })
}
