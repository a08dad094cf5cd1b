import { and, eq, sql } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { named, read } from '../db/read'
import { itemPicture } from '../db/schema/catalogue'

const x = named(itemPicture, 'x')

/** The pictures of an item, in their order. */
export const listPictures = (tx: Tx, itemId: string): Promise<{ id: string; name: string; fileHash: string }[]> =>
  read(
    tx,
    { id: x.id, name: x.name, fileHash: x.fileHash },
    sql`from ${x} where ${x.itemId} = ${itemId} order by ${x.position}, ${x.id}`,
  )

/** The picture that stands for each of some items, by the items' ids; those without one are left out. */
export async function listFirstPictures(tx: Tx, itemIds: readonly string[]): Promise<Map<string, string>> {
  if (itemIds.length === 0) return new Map()
  const found = await read(
    tx,
    { itemId: x.itemId, id: x.id },
    sql`from ${x} where ${x.itemId} = any(${sql.param([...itemIds])}::uuid[])
      order by ${x.itemId}, ${x.position} desc, ${x.id} desc`,
  )
  // The first of each comes last and stays.
  return new Map(found.map((f) => [f.itemId, f.id]))
}

/** Puts a picture behind those that are there. */
export async function insertPicture(
  tx: Tx,
  p: { readonly id: string; readonly itemId: string; readonly name: string; readonly fileHash: string },
): Promise<void> {
  const behind = sql<number>`(select coalesce(max(${x.position}), 0) + 1 from ${x} where ${x.itemId} = ${p.itemId})`
  await tx.insert(itemPicture).values({ ...p, position: behind })
}

/** Puts a picture before all others: it stands for the item. */
export async function putFirst(tx: Tx, itemId: string, id: string): Promise<void> {
  const before = sql<number>`(select min(${x.position}) - 1 from ${x} where ${x.itemId} = ${itemId})`
  await tx
    .update(itemPicture)
    .set({ position: before })
    .where(and(eq(itemPicture.id, id), eq(itemPicture.itemId, itemId)))
}

export async function deletePicture(tx: Tx, itemId: string, id: string): Promise<void> {
  await tx.delete(itemPicture).where(and(eq(itemPicture.id, id), eq(itemPicture.itemId, itemId)))
}
