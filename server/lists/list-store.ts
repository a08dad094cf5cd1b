import { eq, sql } from 'drizzle-orm'
import type { ListName } from '#core/lists/list'
import type { Tx } from '../db/client'
import { readOne } from '../db/read'
import { keptList } from '../db/schema/settings'

/** The version of a list as it is read; one that was never changed has the first. */
export async function findVersion(tx: Tx, name: ListName): Promise<number> {
  return (
    (await readOne(tx, { version: keptList.version }, sql`from ${keptList} where ${keptList.name} = ${name}`))
      ?.version ?? 1
  )
}

/** Locks a list, so that those who change it at once do so one after the other; answers with its version. */
export async function lockList(tx: Tx, name: ListName): Promise<number> {
  await tx.insert(keptList).values({ name }).onConflictDoNothing()
  const found = await readOne(
    tx,
    { version: keptList.version },
    sql`from ${keptList} where ${keptList.name} = ${name} for update`,
  )
  return found?.version ?? 1
}

export async function setVersion(tx: Tx, name: ListName, version: number): Promise<void> {
  await tx.update(keptList).set({ version }).where(eq(keptList.name, name))
}
