import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { Draft } from '#core/requisition/draft'
import type { OwnField } from '#core/requisition/own-field'
import type { AttachmentKind, RequestKind, RequestRule } from '#core/requisition/rules'
import type { ItemFacts, SupplierFacts } from '#core/supplier/warning'
import type { Job } from '#core/requisition/job'
import type { Tx } from '../db/client'
import { row, rows } from '../db/rows'
import { SUPPLIER_FACTS } from '../supplier/reads'
import { REQUISITIONS } from './visible'

/** Retired is what is no longer offered or asked for, and still stands on documents. */
interface Retirable {
  readonly retired: boolean
}

/** What an administrator set for the writing of requisitions, and ever set. */
export interface FormEver {
  readonly kinds: readonly (RequestKind & Retirable)[]
  readonly ownFields: readonly (OwnField & Retirable)[]
  readonly rules: readonly RequestRule[]
  /** Those of the half year after the day. */
  readonly holidays: readonly Day[]
}

/** Kinds, own fields, rules and holidays, in one statement, as every sending needs them. */
export async function readForm(tx: Tx, today: Day): Promise<FormEver> {
  const found = await row<FormEver>(
    tx,
    sql`
    select
      (select coalesce(json_agg(json_build_object('code', k.code, 'name', k.name, 'help', k.help, 'series', k.series,
        'retired', k.retired) order by k.position, k.name), '[]') from request_kind k) as kinds,
      (select coalesce(json_agg(json_build_object('id', f.id, 'name', f.name, 'help', f.help, 'on', f.applies_on,
        'type', f.type, 'required', f.required, 'kinds', f.kinds,
        'departmentIds', f.department_ids, 'categoryIds', f.category_ids, 'choices', f.choices, 'retired',
          f.retired) order by f.position, f.name), '[]') from own_field f) as "ownFields",
      (select coalesce(json_agg(json_build_object('id', u.id, 'name', u.name, 'when', u.conditions, 'asks',
        u.asks) order by u.position), '[]') from request_rule u) as rules,
      (select coalesce(json_agg(h.day::text order by h.day), '[]') from holiday h
        where h.day between ${today} and ${today}::date + 183) as holidays`,
  )
  if (found === null) throw new Error('a statement without a table has a row')
  return found
}

/** What of a form counts for documents that are written now: what was not retired. */
export function inForce<T extends Retirable>(list: readonly T[]): Omit<T, 'retired'>[] {
  return list.flatMap(({ retired, ...rest }) => (retired ? [] : [rest]))
}

/** What has to be known of suppliers and items that lines name: warnings, lead times, agreements. */
export async function readNamed(
  tx: Tx,
  supplierIds: readonly string[],
  itemIds: readonly string[],
): Promise<{ suppliers: SupplierFacts[]; items: ItemFacts[] }> {
  if (supplierIds.length === 0 && itemIds.length === 0) return { suppliers: [], items: [] }
  const found = await row<{ suppliers: SupplierFacts[]; items: ItemFacts[] }>(
    tx,
    sql`
    select
      (select coalesce(json_agg(${SUPPLIER_FACTS}), '[]')
        from supplier s where s.id = any(${sql.param([...supplierIds])}::uuid[])) as suppliers,
      (select coalesce(json_agg(json_build_object('id', i.id, 'agreed', i.has_agreement = 1, 'leadDays', i.lead_days,
        'warning', i.warning, 'warningMode', i.warning_mode)), '[]')
        from item i where i.id = any(${sql.param([...itemIds])}::uuid[])) as items`,
  )
  return found ?? { suppliers: [], items: [] }
}

/** Jobs that are open, and those a document names already. */
export function listJobs(tx: Tx, named: readonly string[], onlyNamed: boolean): Promise<Job[]> {
  if (onlyNamed && named.length === 0) return Promise.resolve([])
  return rows<Job>(
    tx,
    sql`
    select j.id, j.number, j.name from job j
    where j.id = any(${sql.param([...named])}::uuid[]) ${onlyNamed ? sql`` : sql`or j.is_open`}
      order by j.number limit 500`,
  )
}

/** How many requests of each kind were ever sent. */
export function countSentKinds(tx: Tx): Promise<{ kind: string; count: number }[]> {
  return rows(
    tx,
    sql`select r.kind_code as kind, count(*)::int as count from ${REQUISITIONS} r where r.number is not null
      group by r.kind_code`,
  )
}

/** On how many requests something stands in each own field, in the head or on a line. */
export function countFilledFields(tx: Tx, fieldIds: readonly string[]): Promise<{ field: string; count: number }[]> {
  if (fieldIds.length === 0) return Promise.resolve([])
  return rows(
    tx,
    sql`
    select held.field, count(distinct held.id)::int as count from (
      select r.id, o.key as field from ${REQUISITIONS} r cross join lateral jsonb_each_text(r.own) o
        where r.own <> '{}' and o.value <> ''
      union all
      select l.requisition_id, o.key from requisition_line l cross join lateral jsonb_each_text(l.own) o
        where l.own <> '{}' and o.value <> '') held
    where held.field = any(${sql.param([...fieldIds])}::text[]) group by held.field`,
  )
}

/** The requests sent last, newest first, as they were sent. */
export function listSentLast(tx: Tx, limit: number): Promise<{ draft: Draft; day: Day; attached: AttachmentKind[] }[]> {
  return rows(
    tx,
    sql`
    select r.sent_draft as draft, (r.sent_at at time zone o.time_zone)::date::text as day,
      array(select a.kind from attachment a where a.document_id = r.id) as attached
    from ${REQUISITIONS} r cross join organisation o where r.sent_draft is not null order by r.sent_at desc,
      r.id limit ${limit}`,
  )
}
