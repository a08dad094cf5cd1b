import { divideChange, guardedColumns } from '#core/lists/held'
import type { ListDefinition, Values } from '#core/lists/list'
import type { Context } from '../context'
import { listHolders } from '../people/person-reads'
import { tellPeople } from '../people/tell-person'
import { insertHeld, isInUse } from './held-store'
import { LIST_SUBJECTS, type ListChange } from './list-event'

/** What of an entry's change waits for a second person. */
interface Held {
  readonly entryId: string
  readonly name: string
  readonly before: Values
  readonly after: Values
}

/**
 * Divides changes into what holds at once and what a second person has to confirm. While nothing was ever sent, an
 * organisation is being set up, and everything holds.
 */
export async function divideChanges(
  ctx: Context,
  list: ListDefinition,
  changes: readonly ListChange[],
): Promise<{ now: ListChange[]; held: Held[] }> {
  if (guardedColumns(list, true).length === 0 || !(await isInUse(ctx.tx))) return { now: [...changes], held: [] }
  const now: ListChange[] = []
  const held: Held[] = []
  for (const c of changes) {
    if (c.after === null) {
      now.push(c)
      continue
    }
    const divided = divideChange(list, c.before, c.after, c.id === ctx.actor.id)
    if (divided.held !== null) held.push({ entryId: c.id, name: c.after.name ?? c.after.person ?? '', ...divided.held })
    if (list.columns.some((k) => divided.after[k.key] !== c.before?.[k.key])) now.push({ ...c, after: divided.after })
  }
  return { now, held }
}

/** Lays aside what waits, and tells the other administrators. */
export async function layAside(
  ctx: Context,
  list: ListDefinition,
  held: readonly Held[],
  today: string,
): Promise<void> {
  if (held.length === 0) return
  for (const { name: _, ...h } of held)
    await insertHeld(ctx.tx, { list: list.name, ...h, byId: ctx.actor.id, at: ctx.now })
  const others = (await listHolders(ctx.tx, 'administrator', today)).filter((a) => a.id !== ctx.actor.id)
  await tellPeople(
    ctx,
    others.map((a) => ({
      personId: a.id,
      about: { kind: 'settings', id: LIST_SUBJECTS[list.name] },
      told: { code: 'limits-wait', by: ctx.actor.name, of: held.map((h) => h.name) },
      path: '/set-up',
    })),
  )
}
