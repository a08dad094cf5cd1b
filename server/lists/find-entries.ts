import type { Day } from '#core/base/day'
import { keyOf, otherKeyOf, type ListDefinition } from '#core/lists/list'
import type { Tx } from '../db/client'
import type { KeptEntry } from './keeper'
import { KEEPERS } from './keepers'

/** What some rows mean: entries by their key or name, or by the other columns that tell them apart; in lower case. */
export interface Meant {
  readonly keys: readonly string[]
  readonly others: readonly string[]
}

/** The entries that are meant, as they stand today: a list that may be long looks for them, others are read whole. */
export async function findEntries(
  tx: Tx,
  list: ListDefinition,
  meant: Meant,
  today: Day,
): Promise<readonly KeptEntry[]> {
  if (meant.keys.length === 0 && meant.others.length === 0) return []
  const keeper = KEEPERS[list.name]
  if (keeper.find !== undefined) return keeper.find(tx, meant, today)
  const [keys, others] = [new Set(meant.keys), new Set(meant.others)]
  return (await keeper.read(tx, today)).filter(
    (e) =>
      keys.has(keyOf(list, e.values)) ||
      keys.has((e.values.name ?? '').toLowerCase()) ||
      others.has(otherKeyOf(list, e.values) ?? ''),
  )
}
