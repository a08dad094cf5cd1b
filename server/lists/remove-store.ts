import { sql } from 'drizzle-orm'
import { sqlState, type Tx } from '../db/client'
import { together, type ListKeeper } from './keeper'

/** A statement that would leave something naming what is not there. */
const NAMED = '23503'

/**
 * Takes entries away that nothing names, the last first, since later ones may name earlier ones. Answers with the ids
 * of those that stay because something names them.
 */
export async function removeUnused(tx: Tx, keeper: ListKeeper, ids: readonly string[]): Promise<Set<string>> {
  const { remove } = keeper
  if (remove === undefined) return new Set(ids)
  let left = [...ids].reverse()
  if (await attempt(tx, () => together(left.map((id) => remove(tx, id))))) return new Set()
  // What named one of them may have been another: as long as some go, the rest is tried again.
  for (;;) {
    const stay: string[] = []
    for (const id of left) if (!(await attempt(tx, () => remove(tx, id)))) stay.push(id)
    if (stay.length === 0 || stay.length === left.length) return new Set(stay)
    left = stay
  }
}

/** Does what may be refused because something is named; true when it was done, and else as if it had not been tried. */
async function attempt(tx: Tx, work: () => Promise<void>): Promise<boolean> {
  await tx.execute(sql`savepoint removing`)
  try {
    await work()
    await tx.execute(sql`release savepoint removing`)
    return true
  } catch (error) {
    if (sqlState(error) !== NAMED) throw error
    await tx.execute(sql`rollback to savepoint removing`)
    return false
  }
}
