import { sql } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { named, read } from '../db/read'
import { department, departmentMember, person, shipTo } from '../db/schema/people'

const d = named(department, 'd')
const t = named(shipTo, 't')

/** Departments that a person may raise for, each with where its things go; retired ones are offered no more. */
export function listOpenDepartments(
  tx: Tx,
  personId: string,
): Promise<{ id: string; name: string; usualShipToId: string | null }[]> {
  return read(
    tx,
    {
      id: d.id,
      name: d.name,
      // In their own department their own place comes first.
      usualShipToId: sql<string | null>`coalesce((select ${t.id} from ${person}
        join ${t} on ${t.id} = ${person.usualShipToId} and not ${t.retired}
        where ${person.id} = ${personId} and ${person.departmentId} = ${d.id}), ${d.usualShipToId})`,
    },
    sql`from ${d}
    where not ${d.retired} and (${d.id} in (select ${departmentMember.departmentId} from ${departmentMember}
    where ${departmentMember.personId} = ${personId})
       or ${d.id} = (select ${person.departmentId} from ${person} where ${person.id} = ${personId}))
    order by ${d.id} = (select ${person.departmentId} from ${person} where ${person.id} = ${personId}) desc, ${d.name}`,
  )
}

/** Every department, by its name, retired ones too. */
export function listDepartments(
  tx: Tx,
): Promise<{ id: string; name: string; usualShipToId: string | null; retired: boolean }[]> {
  return read(
    tx,
    { id: d.id, name: d.name, usualShipToId: d.usualShipToId, retired: d.retired },
    sql`from ${d} order by ${d.name}, ${d.id}`,
  )
}

/** Every department with the one above it, retired ones too: they may stand between two that are not. */
export const listUpward = (
  tx: Tx,
): Promise<{ id: string; name: string; parentId: string | null; retired: boolean }[]> =>
  read(
    tx,
    { id: d.id, name: d.name, parentId: d.parentId, retired: d.retired },
    sql`from ${d} order by ${d.name}, ${d.id}`,
  )

/** A department and all above it, itself first. */
export async function listBranch(tx: Tx, departmentId: string): Promise<string[]> {
  const found = await read(tx, { dept: sql<string>`up.dept` }, sql`from up order by up.n`, {
    before: sql`with recursive up(dept, above, n) as (
      select ${department.id}, ${department.parentId}, 1 from ${department} where ${department.id} = ${departmentId}
      union all select ${d.id}, ${d.parentId}, n + 1 from ${d} join up on ${d.id} = up.above where n < 20
    )`,
  })
  return found.map((r) => r.dept)
}

export interface ShipToRow {
  id: string
  name: string
  street: string
  postcode: string
  town: string
  country: string
}
export function listShipTos(tx: Tx): Promise<ShipToRow[]> {
  return read(
    tx,
    {
      id: shipTo.id,
      name: shipTo.name,
      street: shipTo.street,
      postcode: shipTo.postcode,
      town: shipTo.town,
      country: shipTo.country,
    },
    sql`from ${shipTo} where not ${shipTo.isOnce} and not ${shipTo.retired} order by ${shipTo.name}`,
  )
}
