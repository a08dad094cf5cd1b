import { randomUUID } from 'node:crypto'
import type { Regular } from '#core/requisition/line-source'
import type { RegularList } from '#shared/contract/regulars'
import type { Context } from '../context'
import { sqlState } from '../db/client'
import { forbidden, invalid, notFound, stale } from '../http/problem'
import { listOpenDepartments } from '../people/place-reads'
import { listRegularEntries, listRegularLists, lockRegularList, type RegularListRow } from './list-reads'
import { deleteRegularList, insertRegularList, updateRegularList } from './store'

/** One's own lists of regulars and those of the departments open to one, with what stands on them. */
export async function listRegulars({ tx, actor }: Context): Promise<{ lists: RegularList[] }> {
  const lists = await listRegularLists(
    tx,
    actor.id,
    (await listOpenDepartments(tx, actor.id)).map((d) => d.id),
  )
  const entries = await listRegularEntries(
    tx,
    lists.map((l) => l.id),
  )
  return {
    lists: lists.map(({ ownerId: _, ...l }) => ({
      ...l,
      entries: entries.filter((e) => e.listId === l.id).map(({ listId: __, ...e }) => e),
    })),
  }
}

/** Makes a list: one's own, or one of a department that is open to one. */
export async function makeRegulars(
  ctx: Context,
  name: string,
  departmentId: string | null,
  entries: readonly Regular[],
): Promise<{ id: string }> {
  if (departmentId !== null && !(await listOpenDepartments(ctx.tx, ctx.actor.id)).some((d) => d.id === departmentId))
    throw forbidden('You may keep regulars for your own departments only.')
  const id = randomUUID()
  await asSentence(() =>
    insertRegularList(
      ctx.tx,
      { id, name: name.trim(), ownerId: departmentId === null ? ctx.actor.id : null, departmentId },
      entries,
    ),
  )
  return { id }
}

/** Writes a list anew, at the version that was seen. */
export async function changeRegulars(
  ctx: Context,
  id: string,
  version: number,
  name: string,
  entries: readonly Regular[],
): Promise<{ id: string; version: number }> {
  await requireList(ctx, id, version)
  await asSentence(() => updateRegularList(ctx.tx, id, name.trim(), entries))
  return { id, version: version + 1 }
}

export async function removeRegulars(ctx: Context, id: string, version: number): Promise<void> {
  await requireList(ctx, id, version)
  await deleteRegularList(ctx.tx, id)
}

async function requireList(ctx: Context, id: string, version: number): Promise<RegularListRow> {
  const list = await lockRegularList(ctx.tx, id)
  const theirs =
    list !== null &&
    (list.ownerId === ctx.actor.id ||
      (list.departmentId !== null &&
        (await listOpenDepartments(ctx.tx, ctx.actor.id)).some((d) => d.id === list.departmentId)))
  if (!theirs) throw notFound('This list')
  if (list.version !== version) throw stale('somebody else changed this list')
  return list
}

async function asSentence(work: () => Promise<void>): Promise<void> {
  try {
    await work()
  } catch (error) {
    if (sqlState(error) === '23503') throw invalid('The list names an item or supplier that does not exist.')
    throw error
  }
}
