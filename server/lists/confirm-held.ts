import { dayOf } from '#core/base/day'
import { LISTS } from '#core/lists/definitions'
import { may } from '#core/people/rights'
import type { HeldView } from '#shared/contract/lists'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { notFound, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { mayConfirm } from '../people/second-person'
import { requireOrganisation } from '../settings/reads'
import { deleteHeld, listHeld, lockHeld, type HeldRow } from './held-store'
import { KEEPERS } from './keepers'
import { closeChange, writeChanges } from './keep-list'
import { LIST_SUBJECTS } from './list-event'
import { lockList } from './list-store'

/** What waits for a second person, and whether whoever looks is one. */
export async function readHeld(ctx: Context): Promise<HeldView[]> {
  const rows = await listHeld(ctx.tx)
  const seen = await Promise.all(rows.map((r) => mayConfirm(ctx, [r.byId])))
  const mayKeep = may(ctx.actor.grants, 'keep settings')
  return rows
    .map(({ byId, list, entryId: _, ...r }, i) => ({
      ...r,
      list,
      mayConfirm: seen[i] === true,
      isOwn: byId === ctx.actor.id,
    }))
    .filter((r) => mayKeep || r.mayConfirm)
}

async function requireHeld(ctx: Context, id: string): Promise<HeldRow> {
  const held = await lockHeld(ctx.tx, id)
  if (held === null) throw notFound('This change')
  return held
}

/** Puts a change in force that somebody else asked for; the event names both. */
export async function confirmHeld(ctx: Context, id: string): Promise<{ version: number }> {
  const { list: name } = await requireHeld(ctx, id)
  // The list before the change: whoever keeps rows locks it first as well.
  const version = await lockList(ctx.tx, name)
  const held = await requireHeld(ctx, id)
  if (!(await mayConfirm(ctx, [held.byId])))
    throw refused([
      held.byId === ctx.actor.id
        ? 'Whoever asked for it does not confirm it; another administrator does, or finance where there is no other.'
        : 'An administrator confirms this.',
    ])
  const list = LISTS[name]
  const today = dayOf(ctx.now, (await requireOrganisation(ctx.tx)).timeZone)
  const entry = (await KEEPERS[name].read(ctx.tx, today)).find((e) => e.id === held.entryId)
  if (entry === undefined) throw notFound('This entry')
  const isAsBefore = Object.entries(held.before).every(([k, v]) => (entry.values[k] ?? '') === v)
  if (!isAsBefore) throw refused(['This was changed since; ask for it again.'])
  const change = { id: entry.id, before: entry.values, after: { ...entry.values, ...held.after } }
  await writeChanges(ctx, list, [change], today)
  await deleteHeld(ctx.tx, id)
  await closeChange(ctx, list, version, { source: '', undoes: null, askedBy: held.by, changes: [change] })
  return { version: version + 1 }
}

/** Ends a change without putting it in force: whoever may confirm it, and whoever asked for it. */
export async function dropHeld(ctx: Context, id: string): Promise<void> {
  const held = await requireHeld(ctx, id)
  if (held.byId !== ctx.actor.id && !(await mayConfirm(ctx, [held.byId]))) throw notFound('This change')
  await deleteHeld(ctx.tx, id)
  const { before, after, by } = held
  await appendEvent(ctx, {
    type: 'list change dropped',
    subjectKind: 'list',
    subjectId: LIST_SUBJECTS[held.list],
    before,
    after: { list: held.list, id: held.entryId, askedBy: by, after },
  })
  await notifyChange(ctx.tx, { kind: 'settings', id: LIST_SUBJECTS[held.list] })
}
