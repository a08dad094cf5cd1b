import { sql } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { named, read, readOne } from '../db/read'
import { supplier } from '../db/schema/supplier'
import { item } from '../db/schema/catalogue'
import { regular, regularList } from '../db/schema/regulars'
import { department } from '../db/schema/people'
import type { OldLine } from './old-line-reads'

const s = named(supplier, 's')
const i = named(item, 'i')
const g = named(regularList, 'g')
const d = named(department, 'd')
const e = named(regular, 'e')

export interface RegularListRow {
  id: string
  version: number
  name: string
  ownerId: string | null
  departmentId: string | null
  department: string | null
}
const LIST = {
  id: g.id,
  version: g.version,
  name: g.name,
  ownerId: g.ownerId,
  departmentId: g.departmentId,
  department: d.name,
}

/** A person's own lists and those of departments, their own first. */
export function listRegularLists(
  tx: Tx,
  personId: string,
  departmentIds: readonly string[],
): Promise<RegularListRow[]> {
  return read(
    tx,
    { ...LIST },
    sql`from ${g} left join ${d} on ${d.id} = ${g.departmentId}
    where ${g.ownerId} = ${personId} or ${g.departmentId} = any(${sql.param([...departmentIds])}::uuid[])
      order by ${g.ownerId} is null, ${d.name}, ${g.name}`,
  )
}

export function lockRegularList(tx: Tx, id: string): Promise<RegularListRow | null> {
  return readOne(
    tx,
    { ...LIST },
    sql`from ${g} left join ${d} on ${d.id} = ${g.departmentId}
      where ${g.id} = ${id} for update of g`,
  )
}

export interface RegularRow extends Omit<
  OldLine,
  'groupId' | 'groupName' | 'groupNote' | 'groupDay' | 'account' | 'note' | 'day'
> {
  id: string
  listId: string
  supplier: string | null
}
/** What stands on lists, in their order. */
export function listRegularEntries(tx: Tx, listIds: readonly string[]): Promise<RegularRow[]> {
  return read(
    tx,
    {
      id: e.id,
      listId: e.listId,
      itemId: e.itemId,
      categoryId: i.categoryId,
      description: e.description,
      secondDescription: sql<RegularRow['secondDescription']>`''`,
      quantity: e.quantity,
      unit: e.unit,
      unitPrice: e.unitPrice,
      priceBase: e.priceBase,
      currency: e.currency,
      taxCode: e.taxCode,
      supplierId: e.supplierId,
      supplierPart: e.supplierPart,
      supplier: s.name,
    },
    sql`from ${e} left join ${s} on ${s.id} = ${e.supplierId} left join ${i} on ${i.id} = ${e.itemId}
    where ${e.listId} = any(${sql.param([...listIds])}::uuid[]) order by ${e.listId}, ${e.position}`,
  )
}
