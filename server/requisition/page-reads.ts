import { sql } from 'drizzle-orm'
import { isId } from '#core/base/id'
import type { Tx } from '../db/client'
import { row, rows } from '../db/rows'
import { REQUISITIONS } from './visible'

export interface Named {
  department: string
  shipTo: string
  owner: string
  raisedBy: string
}

/** The names that a requisition's page shows. */
export function readNames(tx: Tx, id: string): Promise<Named | null> {
  return row<Named>(
    tx,
    sql`
    select coalesce(d.name, '') as department, coalesce(t.name, '') as "shipTo", o.name as owner, p.name as "raisedBy"
    from ${REQUISITIONS} r left join department d on d.id = r.department_id left join ship_to t on t.id = r.ship_to_id
      join person o on o.id = r.owner_id join person p on p.id = r.raised_by_id where r.id = ${id}`,
  )
}

/** The suppliers of a requisition's lines, by id. */
export async function readLineSuppliers(tx: Tx, id: string): Promise<Record<string, string>> {
  const found = await rows<{ id: string; name: string }>(
    tx,
    sql`
    select distinct s.id, s.name from requisition_line l join supplier s on s.id = l.supplier_id
      where l.requisition_id = ${id}`,
  )
  return Object.fromEntries(found.map((s) => [s.id, s.name]))
}

/** The names of the budget lines that pay for a requisition's lines, by id. */
export async function readPayerNames(tx: Tx, id: string): Promise<Record<string, string>> {
  const found = await rows<{ id: string; name: string }>(
    tx,
    sql`
    select distinct b.id, b.name from requisition_line l join requisition_coding c on c.line_id = l.id
      join budget_line b on b.id = c.budget_line_id where l.requisition_id = ${id}`,
  )
  return Object.fromEntries(found.map((b) => [b.id, b.name]))
}

/** The names of people, by id; what is no id is passed over. */
export async function readPeopleNames(tx: Tx, ids: readonly string[]): Promise<Record<string, string>> {
  const sound = ids.filter(isId)
  const found =
    sound.length === 0
      ? []
      : await rows<{ id: string; name: string }>(
          tx,
          sql`select id, name from person where id = any(${sql.param(sound)}::uuid[])`,
        )
  return Object.fromEntries(found.map((p) => [p.id, p.name]))
}

/** Jobs that a person's own requests are for. */
export function listOwnJobs(tx: Tx, personId: string): Promise<{ id: string; number: string; name: string }[]> {
  return rows(
    tx,
    sql`
    select j.id, j.number, j.name from job j where j.id in (
      select r.job_id from ${REQUISITIONS} r where r.owner_id = ${personId}
      union select l.job_id from ${REQUISITIONS} r join requisition_line l on l.requisition_id = r.id
        where r.owner_id = ${personId} and l.job_id is not null)
    order by j.number`,
  )
}

/** What stands in own fields of a person's own requests, at most fifty values of each. */
export function listOwnFieldValues(
  tx: Tx,
  personId: string,
  fieldIds: readonly string[],
): Promise<{ field: string; value: string }[]> {
  if (fieldIds.length === 0) return Promise.resolve([])
  return rows(
    tx,
    sql`
    select f as field, v.value from unnest(${sql.param([...fieldIds])}::text[]) f cross join lateral (
      select distinct x.value from (
        select r.own ->> f as value from ${REQUISITIONS} r where r.owner_id = ${personId} and r.own ? f
        union select l.own ->> f from ${REQUISITIONS} r join requisition_line l on l.requisition_id = r.id
          where r.owner_id = ${personId} and l.own ? f) x
      where x.value <> '' order by 1 limit 50) v`,
  )
}

/** How many requests name a supplier and are not ordered yet. */
export async function countWaitingRequests(tx: Tx, supplierId: string): Promise<number> {
  const found = await row<{ n: number }>(
    tx,
    sql`
    select count(distinct r.id)::int as n from requisition_line l join ${REQUISITIONS} r on r.id = l.requisition_id
    where l.supplier_id = ${supplierId} and r.state in ('in approval', 'approved', 'part ordered')`,
  )
  return found?.n ?? 0
}
