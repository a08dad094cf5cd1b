import { sql } from 'drizzle-orm'
import { isId } from '#core/base/id'
import type { Tx } from '../db/client'
import { named, read, readOne } from '../db/read'
import { department, person, shipTo } from '../db/schema/people'
import { requisitions } from '../requisition/visible'
import { requisitionCoding, requisitionLine } from '../db/schema/requisition'
import { supplier } from '../db/schema/supplier'
import { budgetLine } from '../db/schema/budget'
import { job } from '../db/schema/request-form'

const d = named(department, 'd')
const t = named(shipTo, 't')
const o = named(person, 'o')
const p = named(person, 'p')
const r = requisitions('r')
const l = named(requisitionLine, 'l')
const s = named(supplier, 's')
const c = named(requisitionCoding, 'c')
const b = named(budgetLine, 'b')
const j = named(job, 'j')

export interface Named {
  department: string
  shipTo: string
  owner: string
  raisedBy: string
}

/** The names that a requisition's page shows. */
export function readNames(tx: Tx, id: string): Promise<Named | null> {
  return readOne(
    tx,
    {
      department: sql<Named['department']>`coalesce(${d.name}, '')`,
      shipTo: sql<Named['shipTo']>`coalesce(${t.name}, '')`,
      owner: o.name,
      raisedBy: p.name,
    },
    sql`from ${r} left join ${d} on ${d.id} = ${r.departmentId} left join ${t} on ${t.id} = ${r.shipToId}
      join ${o} on ${o.id} = ${r.ownerId} join ${p} on ${p.id} = ${r.raisedById} where ${r.id} = ${id}`,
  )
}

/** The suppliers of a requisition's lines, by id. */
export async function readLineSuppliers(tx: Tx, id: string): Promise<Record<string, string>> {
  const found = await read(
    tx,
    { id: s.id, name: s.name },
    sql`from ${l} join ${s} on ${s.id} = ${l.supplierId}
      where ${l.requisitionId} = ${id}`,
    { distinct: true },
  )
  return Object.fromEntries(found.map((s) => [s.id, s.name]))
}

/** The names of the budget lines that pay for a requisition's lines, by id. */
export async function readPayerNames(tx: Tx, id: string): Promise<Record<string, string>> {
  const found = await read(
    tx,
    { id: b.id, name: b.name },
    sql`from ${l} join ${c} on ${c.lineId} = ${l.id}
      join ${b} on ${b.id} = ${c.budgetLineId} where ${l.requisitionId} = ${id}`,
    { distinct: true },
  )
  return Object.fromEntries(found.map((b) => [b.id, b.name]))
}

/** The names of people, by id; what is no id is passed over. */
export async function readPeopleNames(tx: Tx, ids: readonly string[]): Promise<Record<string, string>> {
  const sound = ids.filter(isId)
  const found =
    sound.length === 0
      ? []
      : await read(
          tx,
          { id: person.id, name: person.name },
          sql`from ${person} where ${person.id} = any(${sql.param(sound)}::uuid[])`,
        )
  return Object.fromEntries(found.map((p) => [p.id, p.name]))
}

/** Jobs that a person's own requests are for. */
export function listOwnJobs(tx: Tx, personId: string): Promise<{ id: string; number: string; name: string }[]> {
  return read(
    tx,
    { id: j.id, number: j.number, name: j.name },
    sql`from ${j} where ${j.id} in (
      select ${r.jobId} from ${r} where ${r.ownerId} = ${personId}
      union select ${l.jobId} from ${r} join ${l} on ${l.requisitionId} = ${r.id}
        where ${r.ownerId} = ${personId} and ${l.jobId} is not null)
    order by ${j.number}`,
  )
}

/** What stands in own fields of a person's own requests, at most fifty values of each. */
export function listOwnFieldValues(
  tx: Tx,
  personId: string,
  fieldIds: readonly string[],
): Promise<{ field: string; value: string }[]> {
  if (fieldIds.length === 0) return Promise.resolve([])
  return read(
    tx,
    { field: sql<string>`f.field`, value: sql<string>`v.held` },
    sql`from unnest(${sql.param([...fieldIds])}::text[]) f(field) cross join lateral (
      select distinct x.held from (
        select ${r.own} ->> f.field as held from ${r} where ${r.ownerId} = ${personId} and ${r.own} ? f.field
        union select ${l.own} ->> f.field from ${r} join ${l} on ${l.requisitionId} = ${r.id}
          where ${r.ownerId} = ${personId} and ${l.own} ? f.field) x
      where x.held <> '' order by 1 limit 50) v`,
  )
}

/** How many requests name a supplier and are not ordered yet. */
export async function countWaitingRequests(tx: Tx, supplierId: string): Promise<number> {
  const found = await readOne(
    tx,
    { n: sql<number>`count(distinct ${r.id})::int` },
    sql`from ${l} join ${r} on ${r.id} = ${l.requisitionId}
    where ${l.supplierId} = ${supplierId} and ${r.state} in ('in approval', 'approved', 'part ordered')`,
  )
  return found?.n ?? 0
}
