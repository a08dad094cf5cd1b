import { LISTS } from '#core/lists/definitions'
import { isRetired, type ListDefinition, type ListName } from '#core/lists/list'
import { may } from '#core/people/rights'
import { dayOf } from '#core/base/day'
import type { ListChangeView, ListView } from '#shared/contract/lists'
import type { Context } from '../context'
import { forbidden } from '../http/problem'
import { requireOrganisation } from '../settings/reads'
import { listChanges } from './change-reads'
import { KEEPERS } from './keepers'
import { namedBy, readNeighbours } from './known-entries'
import { findVersion } from './list-store'

/** The definition of a list, for whoever keeps it; others are refused. */
export function requireList({ actor }: Context, name: ListName): ListDefinition {
  const list = LISTS[name]
  if (!may(actor.grants, list.right)) throw forbidden(`You have no right to ${list.right}, which this list needs.`)
  return list
}

/** A list with all its entries, and how the entries are called that they name. */
export async function readList(ctx: Context, name: ListName): Promise<ListView> {
  const list = requireList(ctx, name)
  const { timeZone } = await requireOrganisation(ctx.tx)
  const today = dayOf(ctx.now, timeZone)
  const version = await findVersion(ctx.tx, name)
  const entries = await KEEPERS[name].read(ctx.tx)
  const neighbours = await readNeighbours(ctx.tx, list, entries)
  const called = Object.fromEntries(
    namedBy(list).map((n) => [
      n,
      (neighbours.get(n) ?? []).map((e) => ({
        key: e.values[LISTS[n].key[0] ?? ''] ?? '',
        name: e.values.name ?? '',
        retired: isRetired(LISTS[n], e.values, today),
      })),
    ]),
  )
  return {
    name,
    version,
    entries: entries.map((e) => ({ id: e.id, values: { ...e.values }, retired: isRetired(list, e.values, today) })),
    called,
  }
}

/** Changes that a page shows. */
const MOST_CHANGES = 50

/** The last changes of a list, for whoever keeps it. */
export async function readChanges(ctx: Context, name: ListName): Promise<{ changes: ListChangeView[] }> {
  requireList(ctx, name)
  return { changes: await listChanges(ctx.tx, name, MOST_CHANGES) }
}
