import { sql } from 'drizzle-orm'
import { type DecimalText } from '#core/base/decimal'
import { isId } from '#core/base/id'
import { type Slip } from '#shared/contract/requisition'
import { type Tx } from '../db/client'
import { row, rows } from '../db/rows'

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
    from requisition r left join department d on d.id = r.department_id left join ship_to t on t.id = r.ship_to_id
      join person o on o.id = r.owner_id join person p on p.id = r.raised_by_id where r.id = ${id}`,
  )
}

/** The suppliers of a requisition's lines, by id. */
export async function readLineSuppliers(tx: Tx, id: string): Promise<Record<string, string>> {
  const found = await rows<{ id: string; name: string }>(
    tx,
    sql`
    select distinct s.id, s.name from requisition_line l join supplier s on s.id = l.supplier_id where l.requisition_id = ${id}`,
  )
  return Object.fromEntries(found.map((s) => [s.id, s.name]))
}

/** What waits for a person's decision, oldest first. */
export function listSlips(tx: Tx, personId: string): Promise<Slip[]> {
  return rows<Slip>(
    tx,
    sql`
    select r.id, o.name as owner, a.amount::text as amount, a.currency, r.title, r.need_by::text as "needBy",
      to_char(min(s.opened_at) at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as since, max(f.name) as "forName",
      bool_or(r.over_budget_reason <> '') as "overBudget",
      exists (select 1 from remark m where m.requisition_id = r.id and m.kind = 'question' and m.answered_at is null and m.person_id = ${personId}) as asked
    from approval_seat s join requisition r on r.id = s.document_id join approval_route a on a.id = s.route_id join person o on o.id = r.owner_id
      left join person f on f.id = s.for_id
    where s.actor_id = ${personId} and s.state = 'open'
    group by r.id, o.name, a.amount, a.currency, r.title, r.need_by
    order by min(s.opened_at), r.number`,
  )
}

export interface LinkedOrder {
  id: string
  number: string
  supplier: string
  issuedAt: string
  net: DecimalText
  currency: string
  lineIds: string[]
  pdf: boolean
  mailedAt: string | null
  others: string[]
}

/** Issued orders that serve a requisition. */
export function listLinkedOrders(tx: Tx, requisitionId: string): Promise<LinkedOrder[]> {
  return rows<LinkedOrder>(
    tx,
    sql`
    select o.id, o.number, s.name as supplier, to_char(o.issued_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as "issuedAt", o.net, o.currency,
      array_agg(distinct l.id) as "lineIds", v.pdf_hash is not null as pdf,
      to_char(m.sent_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as "mailedAt",
      coalesce((select array_agg(distinct r2.number) from order_line ol2 join order_line_source x2 on x2.order_line_id = ol2.id
        join requisition_line l2 on l2.id = x2.requisition_line_id join requisition r2 on r2.id = l2.requisition_id
        where ol2.order_id = o.id and r2.id <> ${requisitionId}), '{}') as others
    from requisition_line l join order_line_source x on x.requisition_line_id = l.id join order_line ol on ol.id = x.order_line_id
      join purchase_order o on o.id = ol.order_id join supplier s on s.id = o.supplier_id
      left join order_revision v on v.order_id = o.id and v.revision = o.revision left join outgoing_mail m on m.id = v.mail_id
    where l.requisition_id = ${requisitionId} and o.issued_at is not null
    group by o.id, s.name, v.pdf_hash, m.sent_at order by o.issued_at`,
  )
}

export interface EventRow {
  seq: number
  at: string
  type: string
  actor: string | null
  forName: string | null
  after: Record<string, unknown> | null
}
export function listEvents(tx: Tx, subjectId: string): Promise<EventRow[]> {
  return rows<EventRow>(
    tx,
    sql`
    select e.seq::int as seq, to_char(e.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as at, e.type, p.name as actor, f.name as "forName", e.after
    from event e left join person p on p.id = e.actor_id left join person f on f.id = e.for_id
    where e.subject_id = ${subjectId} order by e.seq desc`,
  )
}

/** What stands for a requisition in each stage, its share of orders included. */
export async function readMoney(
  tx: Tx,
  requisitionId: string,
): Promise<{ stage: 'reserved' | 'committed' | 'spent'; amount: DecimalText }[]> {
  return rows(
    tx,
    sql`
    select e.stage, sum(e.amount)::text as amount from budget_entry e
    where e.document_id = ${requisitionId} or (e.document_kind = 'order' and e.document_id in (
      select ol.order_id from requisition_line l join order_line_source x on x.requisition_line_id = l.id
        join order_line ol on ol.id = x.order_line_id where l.requisition_id = ${requisitionId}))
    group by e.stage having sum(e.amount) <> 0 order by e.stage`,
  )
}

/** The buyers of the issued orders that serve a requisition. */
export function listOrderBuyers(tx: Tx, requisitionId: string): Promise<{ id: string; name: string }[]> {
  return rows(
    tx,
    sql`
    select distinct p.id, p.name from requisition_line l join order_line_source x on x.requisition_line_id = l.id join order_line ol on ol.id = x.order_line_id
      join purchase_order o on o.id = ol.order_id join person p on p.id = o.buyer_id
    where l.requisition_id = ${requisitionId} and o.issued_at is not null order by p.name`,
  )
}

/** The names of the budget lines that pay for a requisition's lines, by id. */
export async function readPayerNames(tx: Tx, id: string): Promise<Record<string, string>> {
  const found = await rows<{ id: string; name: string }>(
    tx,
    sql`
    select distinct b.id, b.name from requisition_line l join requisition_coding c on c.line_id = l.id join budget_line b on b.id = c.budget_line_id where l.requisition_id = ${id}`,
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
      select r.job_id from requisition r where r.owner_id = ${personId}
      union select l.job_id from requisition r join requisition_line l on l.requisition_id = r.id where r.owner_id = ${personId} and l.job_id is not null)
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
        select r.own ->> f as value from requisition r where r.owner_id = ${personId} and r.own ? f
        union select l.own ->> f from requisition r join requisition_line l on l.requisition_id = r.id where r.owner_id = ${personId} and l.own ? f) x
      where x.value <> '' order by 1 limit 50) v`,
  )
}
