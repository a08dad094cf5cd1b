import { and, eq, inArray, sql } from 'drizzle-orm'
import type { ListName, Values } from '#core/lists/list'
import type { Tx } from '../db/client'
import { SECONDS } from '../db/moments'
import { named, read, readOne } from '../db/read'
import { document } from '../db/schema/document'
import { heldChange } from '../db/schema/lists'
import { limitForDays, person } from '../db/schema/people'

const h = named(heldChange, 'h')
const p = named(person, 'p')
const o = named(person, 'o')
const x = named(limitForDays, 'x')

/** True once a document has left its author: from then on limits are changed by two. */
export async function isInUse(tx: Tx): Promise<boolean> {
  const first = sql`from ${document} where ${document.number} is not null limit 1`
  return (await readOne(tx, { id: document.id }, first)) !== null
}

export async function insertHeld(
  tx: Tx,
  c: {
    readonly list: ListName
    readonly entryId: string
    readonly before: Values
    readonly after: Values
    readonly byId: string
    readonly at: Date
  },
): Promise<void> {
  // What was asked for before of the same entry is asked for no more.
  await tx.delete(heldChange).where(and(eq(heldChange.list, c.list), eq(heldChange.entryId, c.entryId)))
  await tx.insert(heldChange).values(c)
}

export interface HeldRow {
  id: string
  list: ListName
  entryId: string
  name: string
  before: Values
  after: Values
  byId: string
  by: string
  at: string
}
const HELD = {
  id: h.id,
  list: h.list,
  entryId: h.entryId,
  name: o.name,
  before: h.before,
  after: h.after,
  byId: h.byId,
  by: p.name,
  at: SECONDS(h.at),
}
const FROM = sql`from ${h} join ${p} on ${p.id} = ${h.byId} 
  left join ${x} on ${x.id}::text = ${h.entryId} and ${h.list} = 'limits'
  join ${o} on ${o.id} = coalesce(${x.personId}, ${h.entryId}::uuid)`

/** What waits for a second person, the oldest first. */
export const listHeld = (tx: Tx): Promise<HeldRow[]> => read(tx, { ...HELD }, sql`${FROM} order by ${h.at}, ${h.id}`)

/** One of them, with the right to end it until the transaction does. */
export const lockHeld = (tx: Tx, id: string): Promise<HeldRow | null> =>
  readOne(tx, { ...HELD }, sql`${FROM} where ${h.id} = ${id} for update of h`)

/** What waits of entries that were taken away waits for nobody. */
export async function deleteHeldOf(tx: Tx, list: ListName, entryIds: readonly string[]): Promise<void> {
  await tx.delete(heldChange).where(and(eq(heldChange.list, list), inArray(heldChange.entryId, [...entryIds])))
}

export async function deleteHeld(tx: Tx, id: string): Promise<void> {
  await tx.delete(heldChange).where(eq(heldChange.id, id))
}
