import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { Draft } from '#core/requisition/draft'
import type { OwnField } from '#core/requisition/own-field'
import { attachedKinds, type AttachedAs, type RequestKind, type RequestRule } from '#core/requisition/rules'
import type { ItemFacts, SupplierFacts } from '#core/supplier/warning'
import type { Job } from '#core/requisition/job'
import type { Tx } from '../db/client'
import { ITEM_FACTS } from '../catalogue/reads'
import { SUPPLIER_FACTS } from '../supplier/reads'
import { named, read, readOne, sure } from '../db/read'
import { job, ownField, requestKind, requestRule } from '../db/schema/request-form'
import { holiday, organisation } from '../db/schema/settings'
import { supplier } from '../db/schema/supplier'
import { item } from '../db/schema/catalogue'
import { requisitions } from '../requisition/visible'
import { requisitionLine } from '../db/schema/requisition'
import { attachment } from '../db/schema/document'

const k = named(requestKind, 'k')
const f = named(ownField, 'f')
const u = named(requestRule, 'u')
const h = named(holiday, 'h')
const s = named(supplier, 's')
const i = named(item, 'i')
const j = named(job, 'j')
const r = requisitions('r')
const l = named(requisitionLine, 'l')
const a = named(attachment, 'a')
const o = named(organisation, 'o')

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
  const found = await readOne(
    tx,
    {
      kinds: sql<
        FormEver['kinds']
      >`(select coalesce(json_agg(json_build_object('code', ${k.code}, 'name', ${k.name}, 'help', ${k.help}, 'series',
      ${k.series}, 'raisesParts', ${k.raisesParts},
        'retired', ${k.retired}) order by ${k.position}, ${k.name}), '[]') from ${k})`,
      ownFields: sql<
        FormEver['ownFields']
      >`(select coalesce(json_agg(json_build_object('id', ${f.id}, 'name', ${f.name}, 'help', ${f.help}, 'on',
      ${f.appliesOn},
        'type', ${f.type}, 'required', ${f.required}, 'kinds', ${f.kinds},
        'departmentIds', ${f.departmentIds}, 'categoryIds', ${f.categoryIds}, 'choices', ${f.choices}, 'retired',
          ${f.retired}) order by ${f.position}, ${f.name}), '[]') from ${f})`,
      rules: sql<
        FormEver['rules']
      >`(select coalesce(json_agg(json_build_object('id', ${u.id}, 'name', ${u.name}, 'when', ${u.conditions}, 'asks',
        ${u.asks}) order by ${u.position}), '[]') from ${u})`,
      holidays: sql<FormEver['holidays']>`(select coalesce(json_agg(${h.day}::text order by ${h.day}), '[]') from ${h}
        where ${h.day} between ${today} and ${today}::date + 183)`,
    },
    sql``,
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
  const found = await readOne(
    tx,
    {
      suppliers: sql<SupplierFacts[]>`(select coalesce(json_agg(${SUPPLIER_FACTS}), '[]')
        from ${s} where ${s.id} = any(${sql.param([...supplierIds])}::uuid[]))`,
      items: sql<ItemFacts[]>`(select coalesce(json_agg(${ITEM_FACTS}), '[]')
        from ${i} where ${i.id} = any(${sql.param([...itemIds])}::uuid[]))`,
    },
    sql``,
  )
  return found ?? { suppliers: [], items: [] }
}

/** Jobs that are open, and those a document names already. */
export function listJobs(tx: Tx, named: readonly string[], onlyNamed: boolean): Promise<Job[]> {
  if (onlyNamed && named.length === 0) return Promise.resolve([])
  return read(
    tx,
    { id: j.id, number: j.number, name: j.name },
    sql`from ${j}
    where ${j.id} = any(${sql.param([...named])}::uuid[]) ${onlyNamed ? sql`` : sql`or ${j.isOpen}`}
      order by ${j.number} limit 500`,
  )
}

/** How many requests of each kind were ever sent. */
export function countSentKinds(tx: Tx): Promise<{ kind: string; count: number }[]> {
  return read(
    tx,
    { kind: r.kindCode, count: sql<number>`count(*)::int` },
    sql`from ${r} where ${r.number} is not null
      group by ${r.kindCode}`,
  )
}

/** On how many requests something stands in each own field, in the head or on a line. */
export function countFilledFields(tx: Tx, fieldIds: readonly string[]): Promise<{ field: string; count: number }[]> {
  if (fieldIds.length === 0) return Promise.resolve([])
  return read(
    tx,
    { field: sql<string>`held.field`, count: sql<number>`count(distinct held.request)::int` },
    sql`from (
      select ${r.id} as request, w.field from ${r} cross join lateral jsonb_each_text(${r.own}) w(field, held)
        where ${r.own} <> '{}' and w.held <> ''
      union all
      select ${l.requisitionId}, w.field from ${l} cross join lateral jsonb_each_text(${l.own}) w(field, held)
        where ${l.own} <> '{}' and w.held <> '') held
    where held.field = any(${sql.param([...fieldIds])}::text[]) group by held.field`,
  )
}

/** The requests sent last, newest first, as they were sent. */
export async function listSentLast(
  tx: Tx,
  limit: number,
): Promise<{ draft: Draft; day: Day; attached: AttachedAs[] }[]> {
  const found = await read(
    tx,
    {
      draft: sure(r.sentDraft),
      day: sql<Day>`(${r.sentAt} at time zone ${o.timeZone})::date::text`,
      files: sql<{ fileHash: string; kind: AttachedAs }[]>`coalesce((
        select json_agg(json_build_object('fileHash', ${a.fileHash}, 'kind', ${a.kind}) order by ${a.addedAt}, ${a.id})
        from ${a} where ${a.documentId} = ${r.id}), '[]')`,
    },
    sql`from ${r} cross join ${o} where ${r.sentDraft} is not null order by ${r.sentAt} desc,
      ${r.id} limit ${limit}`,
  )
  return found.map(({ files, ...sent }) => ({ ...sent, attached: attachedKinds(files) }))
}
