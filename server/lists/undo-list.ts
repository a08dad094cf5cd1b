import type { ListName } from '#core/lists/list'
import { retired } from '#core/lists/plan'
import { dayOf } from '#core/base/day'
import { LIST_WORDS, sayChangedSince } from '#shared/words/lists'
import type { Context } from '../context'
import { notFound, refused, stale } from '../http/problem'
import { requireOrganisation } from '../settings/reads'
import { findListChange, wasTakenBack } from './change-reads'
import { KEEPERS } from './keepers'
import { closeChange, refuseOwn, writeChanges } from './keep-list'
import { deleteHeldOf } from './held-store'
import { divideChanges, layAside } from './hold-changes'
import type { ListChange } from './list-event'
import { lockList } from './list-store'
import { removeUnused } from './remove-store'
import { requireList } from './read-list'
import { beginTakingBack } from './take-laid'

/**
 * Takes a change of a list back, whole, by its event: what it changed is as before, what it added is taken away, or
 * retired where something names it already. Refused where somebody changed one of its entries since.
 */
export async function undoChange(
  ctx: Context,
  name: ListName,
  version: number,
  seq: number,
): Promise<{ version: number; seq: number | null; changes: number; held: number }> {
  const list = requireList(ctx, name)
  const { many } = LIST_WORDS[name]
  if ((await lockList(ctx.tx, name)) !== version) throw stale(`the list of ${many}`)
  const change = await findListChange(ctx.tx, name, seq)
  if (change === null) throw notFound('This change')
  if (await wasTakenBack(ctx.tx, name, seq)) throw refused(['This change was taken back already.'])
  if (change.file !== undefined) {
    await beginTakingBack(ctx, name, seq)
    return { version, seq: null, changes: change.count ?? 0, held: 0 }
  }
  const today = dayOf(ctx.now, (await requireOrganisation(ctx.tx)).timeZone)
  const kept = new Map((await KEEPERS[name].read(ctx.tx, today)).map((e) => [e.id, e.values]))
  const since = change.changes.filter((c) => {
    const is = kept.get(c.id)
    return is === undefined || list.columns.some((k) => is[k.key] !== c.after?.[k.key])
  })
  if (since.length > 0) throw refused([sayChangedSince(since.length)])
  // What two agreed on is taken back by two.
  const { now: back, held } = await divideChanges(
    ctx,
    list,
    change.changes.filter((c) => c.before !== null).map((c) => ({ id: c.id, before: c.after, after: c.before })),
  )
  await refuseOwn(ctx, list, back)
  await layAside(ctx, list, held, today)
  await writeChanges(ctx, list, back, today)
  const added = change.changes.filter((c) => c.before === null)
  const named = await removeUnused(
    ctx.tx,
    KEEPERS[name],
    added.map((c) => c.id),
  )
  await deleteHeldOf(
    ctx.tx,
    name,
    added.flatMap((c) => (named.has(c.id) ? [] : [c.id])),
  )
  const away: ListChange[] = added.map((c) => ({
    id: c.id,
    before: c.after,
    after: named.has(c.id) && c.after !== null ? retired(list, c.after, today) : null,
  }))
  await writeChanges(
    ctx,
    list,
    away.filter((c) => c.after !== null),
    today,
  )
  const changes = [...back, ...away]
  if (changes.length === 0) return { version, seq: null, changes: 0, held: held.length }
  const closed = await closeChange(ctx, list, version, { source: change.source, undoes: seq, changes })
  return { version: version + 1, seq: closed, changes: changes.length, held: held.length }
}
