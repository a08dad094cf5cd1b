import { and, eq, inArray, sql } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { bare, named, read, readOne } from '../db/read'
import { agreement, agreementItem } from '../db/schema/agreement'
import { item } from '../db/schema/catalogue'
import { purchaseOrder } from '../db/schema/order'
import { orderingRule } from '../db/schema/ordering'
import { regular } from '../db/schema/regulars'
import { requisitionLine } from '../db/schema/requisition'
import { openingBalance } from '../db/schema/budget'
import { supplier, supplierContact, supplierDocument } from '../db/schema/supplier'

const s = named(supplier, 's')
const i = named(item, 'i')
const j = named(item, 'j')
const l = named(requisitionLine, 'l')
const r = named(regular, 'r')
const o = named(purchaseOrder, 'o')
const k = named(supplierContact, 'k')
const d = named(supplierDocument, 'd')
const a = named(agreement, 'a')
const x = named(agreementItem, 'x')

/** Locks suppliers against everything that would name them, in the one order of their ids. */
export async function lockSuppliers(tx: Tx, ids: readonly string[]): Promise<void> {
  await read(
    tx,
    { id: s.id },
    sql`from ${s} where ${s.id} = any(${sql.param([...ids])}::uuid[]) order by ${s.id} for update`,
  )
}

/** How much names a supplier, by what it is. */
export async function countNaming(
  tx: Tx,
  id: string,
): Promise<{
  items: number
  lines: number
  regulars: number
  orders: number
  contacts: number
  papers: number
  agreements: number
}> {
  const found = await readOne(
    tx,
    {
      items: sql<number>`(select count(*)::int from ${i} where ${i.supplierId} = ${id})`,
      lines: sql<number>`(select count(*)::int from ${l} where ${l.supplierId} = ${id})`,
      regulars: sql<number>`(select count(*)::int from ${r} where ${r.supplierId} = ${id})`,
      orders: sql<number>`(select count(*)::int from ${o} where ${o.supplierId} = ${id})`,
      contacts: sql<number>`(select count(*)::int from ${k} where ${k.supplierId} = ${id})`,
      papers: sql<number>`(select count(*)::int from ${d} where ${d.supplierId} = ${id})`,
      agreements: sql<number>`(select count(*)::int from ${a} where ${a.supplierId} = ${id})`,
    },
    sql``,
  )
  return found ?? { items: 0, lines: 0, regulars: 0, orders: 0, contacts: 0, papers: 0, agreements: 0 }
}

export interface ItemTwice {
  id: string
  name: string
  supplierPart: string
  /** The item of the supplier that stays, which has the same part number. */
  keptId: string
  keptName: string
}
/** Items of one supplier whose part number the other has as well. */
export function listItemsTwice(tx: Tx, from: string, into: string): Promise<ItemTwice[]> {
  return read(
    tx,
    { id: i.id, name: i.name, supplierPart: i.supplierPart, keptId: j.id, keptName: j.name },
    sql`from ${i} join ${j} on ${j.supplierId} = ${into} and lower(${j.supplierPart}) = lower(${i.supplierPart})
      where ${i.supplierId} = ${from} order by ${i.supplierPart}`,
  )
}

/** Retires items in favour of those that stay, and lets everything else of a supplier be another's. */
export async function moveNaming(tx: Tx, from: string, into: string, twice: readonly ItemTwice[]): Promise<void> {
  for (const t of twice) {
    await tx.update(item).set({ retired: true, successorId: t.keptId }).where(eq(item.id, t.id))
    // What stood in an agreement stands there as the item that stays, unless that does already.
    await tx.execute(sql`update ${x} set ${bare(x.itemId)} = ${t.keptId} where ${x.itemId} = ${t.id} and not exists (
      select 1 from ${agreementItem} where ${agreementItem.agreementId} = ${x.agreementId}
        and ${agreementItem.itemId} = ${t.keptId})`)
  }
  const stay = twice.map((t) => t.id)
  await tx
    .update(item)
    .set({ supplierId: into })
    .where(and(eq(item.supplierId, from), stay.length === 0 ? undefined : sql`not ${inArray(item.id, stay)}`))
  await tx.update(requisitionLine).set({ supplierId: into }).where(eq(requisitionLine.supplierId, from))
  await tx.update(regular).set({ supplierId: into }).where(eq(regular.supplierId, from))
  // Of two orders that were placed under one number elsewhere, that of the supplier that stays bars a third.
  await tx.execute(sql`update ${o} set ${bare(o.placedKey)} = null where ${o.supplierId} = ${from} and exists (
    select 1 from ${purchaseOrder} where ${purchaseOrder.supplierId} = ${into}
      and ${purchaseOrder.placedKey} = ${o.placedKey})`)
  await tx.update(purchaseOrder).set({ supplierId: into }).where(eq(purchaseOrder.supplierId, from))
  await tx.update(agreement).set({ supplierId: into }).where(eq(agreement.supplierId, from))
  // A rule that names it names what it became.
  await tx
    .update(orderingRule)
    .set({ form: sql`replace(${orderingRule.form}::text, ${from}, ${into})::jsonb` })
    .where(sql`${orderingRule.form} -> 'supplierIds' ? ${from}`)
  await tx.update(openingBalance).set({ supplierId: into }).where(eq(openingBalance.supplierId, from))
  await tx.update(supplierDocument).set({ supplierId: into }).where(eq(supplierDocument.supplierId, from))
  // Behind those that are there.
  await tx
    .update(supplierContact)
    .set({ supplierId: into, position: sql`${supplierContact.position} + 1000` })
    .where(eq(supplierContact.supplierId, from))
}

/** Says of a supplier that it is another one; what was merged into it before is that one too. */
export async function setMerged(tx: Tx, from: string, into: string, at: Date): Promise<void> {
  await tx
    .update(supplier)
    .set({
      standing: 'merged',
      mergedIntoId: into,
      standingSince: at,
      standingReason: '',
      standingUntil: null,
      version: sql`${supplier.version} + 1`,
    })
    .where(eq(supplier.id, from))
  await tx.update(supplier).set({ mergedIntoId: into }).where(eq(supplier.mergedIntoId, from))
}
