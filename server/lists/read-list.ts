import { LISTS } from '#core/lists/definitions'
import { wordsFit } from '#core/lists/find-entries'
import { isRetired, type ListDefinition, type ListName } from '#core/lists/list'
import { may } from '#core/people/rights'
import { dayOf } from '#core/base/day'
import type { ListChangeView, ListView } from '#shared/contract/lists'
import type { Context } from '../context'
import { forbidden } from '../http/problem'
import { requireOrganisation } from '../settings/reads'
import { listChanges } from './change-reads'
import type { KeptEntry } from './keeper'
import { KEEPERS } from './keepers'
import { labelOf, namedBy, namedIn, namesOf, readNeighbours } from './known-entries'
import { findVersion } from './list-store'

/** The definition of a list, for whoever keeps it; others are refused. */
export function requireList({ actor }: Context, name: ListName): ListDefinition {
  const list = LISTS[name]
  if (!may(actor.grants, list.right)) throw forbidden(`You have no right to ${list.right}, which this list needs.`)
  return list
}

/** Entries that one answer carries; of a longer list those that were looked for. */
const MOST_ENTRIES = 1000

/** A list with its entries, as far as one answer carries them, and how the entries are called that they name. */
export async function readList(ctx: Context, name: ListName, typed: string): Promise<ListView> {
  const list = requireList(ctx, name)
  const { timeZone } = await requireOrganisation(ctx.tx)
  const today = dayOf(ctx.now, timeZone)
  const version = await findVersion(ctx.tx, name)
  const all = await KEEPERS[name].read(ctx.tx, today)
  const neighbours = await readNeighbours(ctx.tx, list, all, today)
  const names = namesOf(neighbours)
  const fits = wordsFit(list, typed, (of, key) => names.get(`${of} ${key}`) ?? '')
  const entries = (typed === '' ? all : all.filter((e) => fits(e.values))).slice(0, MOST_ENTRIES)
  const isNamed = namedIn(list, entries)
  const called = Object.fromEntries(
    namedBy(list).map((n) => {
      const found = neighbours.get(n) ?? []
      const some = found.length <= MOST_ENTRIES ? found : found.filter((e) => isNamed(n, labelOf(n, e)))
      const view = (e: KeptEntry) => ({
        key: labelOf(n, e),
        name: e.values.name ?? '',
        retired: isRetired(LISTS[n], e.values, today),
      })
      return [n, some.map(view)]
    }),
  )
  return {
    name,
    version,
    count: all.length,
    retired: all.filter((e) => isRetired(list, e.values, today)).length,
    entries: entries.map((e) => ({ id: e.id, values: { ...e.values }, retired: isRetired(list, e.values, today) })),
    called,
    long: namedBy(list).filter((n) => (neighbours.get(n) ?? []).length > MOST_ENTRIES),
  }
}

/** Changes that a page shows. */
const MOST_CHANGES = 50

/** The last changes of a list, for whoever keeps it. */
export async function readChanges(ctx: Context, name: ListName): Promise<{ changes: ListChangeView[] }> {
  requireList(ctx, name)
  return { changes: await listChanges(ctx.tx, name, MOST_CHANGES) }
}
