import { LISTS } from '#core/lists/definitions'
import { wordsFit } from '#core/lists/find-entries'
import { isRetired, type ListDefinition, type ListName } from '#core/lists/list'
import { may } from '#core/people/rights'
import { dayOf, type Day } from '#core/base/day'
import type { ListChangeView, ListView } from '#shared/contract/lists'
import type { Context } from '../context'
import { forbidden } from '../http/problem'
import { requireOrganisation } from '../settings/reads'
import { listChanges } from './change-reads'
import type { KeptEntry } from './keeper'
import { KEEPERS } from './keepers'
import { findEntries } from './find-entries'
import { labelOf, labelsIn, namedBy, namedIn, namesOf, readNeighbours } from './known-entries'
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
  const { count, retired, entries } = await listEntries(ctx, list, typed, today)
  const labels = (of: ListName) =>
    labelsIn(
      list,
      entries.map((e) => e.values),
      of,
    )
  const isLong = count > MOST_ENTRIES
  // Of a list that is long, those are told that the entries name.
  const own = isLong ? await findEntries(ctx.tx, list, { keys: labels(name), others: [] }, today) : entries
  const neighbours = await readNeighbours(ctx.tx, list, own, today, labels)
  const isNamed = namedIn(list, entries)
  const isCut = (n: ListName) =>
    n === name ? isLong : KEEPERS[n].find !== undefined || (neighbours.get(n) ?? []).length > MOST_ENTRIES
  const called = Object.fromEntries(
    namedBy(list).map((n) => {
      const found = neighbours.get(n) ?? []
      const some = isCut(n) ? found.filter((e) => isNamed(n, labelOf(n, e))) : found
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
    count,
    retired,
    entries: entries.map((e) => ({ id: e.id, values: { ...e.values }, retired: isRetired(list, e.values, today) })),
    called,
    long: namedBy(list).filter(isCut),
  }
}

/** The entries that one answer carries: a list that is long is looked through by the database, a short one here. */
async function listEntries(
  { tx }: Context,
  list: ListDefinition,
  typed: string,
  today: Day,
): Promise<{ count: number; retired: number; entries: readonly KeptEntry[] }> {
  const keeper = KEEPERS[list.name]
  const size = await keeper.count?.(tx)
  if (size !== undefined && size.count > MOST_ENTRIES && keeper.look !== undefined) {
    const words = typed.split(/\s+/).filter((w) => w !== '')
    return { ...size, entries: await keeper.look(tx, words, MOST_ENTRIES, today) }
  }
  const all = await keeper.read(tx, today)
  const named = (of: ListName) =>
    labelsIn(
      list,
      all.map((e) => e.values),
      of,
    )
  const names = typed === '' ? new Map<string, string>() : namesOf(await readNeighbours(tx, list, all, today, named))
  const fits = wordsFit(list, typed, (of, key) => names.get(`${of} ${key}`) ?? '')
  const found = typed === '' ? all : all.filter((e) => fits(e.values))
  return {
    count: all.length,
    retired: all.filter((e) => isRetired(list, e.values, today)).length,
    entries: found.slice(0, MOST_ENTRIES),
  }
}

/** Changes that a page shows. */
const MOST_CHANGES = 50

/** The last changes of a list, for whoever keeps it. */
export async function readChanges(ctx: Context, name: ListName): Promise<{ changes: ListChangeView[] }> {
  requireList(ctx, name)
  return { changes: await listChanges(ctx.tx, name, MOST_CHANGES) }
}
