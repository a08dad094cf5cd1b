import type { Day } from '#core/base/day'
import { keyOf, type ListDefinition } from '#core/lists/list'
import { unnamed } from '#core/lists/plan'
import type { Tx } from '../db/client'
import type { KeptEntry } from './keeper'
import { KEEPERS } from './keepers'

const AT_ONCE = 5000

/** Every entry of a list in the order of its page, some at a time where it may be long. */
export async function* eachEntries(tx: Tx, list: ListDefinition, today: Day): AsyncGenerator<readonly KeptEntry[]> {
  const { page, read } = KEEPERS[list.name]
  if (page === undefined) {
    yield await read(tx, today)
    return
  }
  for (let after: KeptEntry | null = null; ;) {
    const some: KeptEntry[] = await page(tx, after, AT_ONCE, today)
    if (some.length > 0) yield some
    after = some.at(-1) ?? null
    if (some.length < AT_ONCE) return
  }
}

/** The entries in use whose keys `areNamed` does not know, some at a time. */
export async function* eachUnnamed(
  tx: Tx,
  list: ListDefinition,
  today: Day,
  areNamed: (keys: readonly string[]) => Promise<ReadonlySet<string>> | ReadonlySet<string>,
): AsyncGenerator<readonly KeptEntry[]> {
  for await (const some of eachEntries(tx, list, today)) {
    yield unnamed(list, some, await areNamed(some.map((e) => keyOf(list, e.values))), today)
  }
}

/** Those of them together, and how many; of a file's plan the first are told, of its taking all. */
export async function collectUnnamed(
  tx: Tx,
  list: ListDefinition,
  today: Day,
  named: ReadonlySet<string>,
  most: number,
): Promise<{ count: number; entries: KeptEntry[] }> {
  let count = 0
  const entries: KeptEntry[] = []
  for await (const some of eachUnnamed(tx, list, today, () => named)) {
    count += some.length
    entries.push(...some.slice(0, Math.max(0, most - entries.length)))
  }
  return { count, entries }
}
