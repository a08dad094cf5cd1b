import { sql, type SQL } from 'drizzle-orm'
import { isId } from '#core/base/id'
import type { DecimalText } from '#core/base/decimal'
import type { DraftLine } from '#core/requisition/draft'
import type { MineRow } from '#shared/contract/mine'
import type { Tx } from '../db/client'
import { likePattern } from '../db/pattern'
import { row, rows } from '../db/rows'
import { REQUISITIONS } from './visible'

export interface MineQuery {
  readonly view: 'all' | 'open' | 'drafts' | 'waiting'
  readonly words: string
  /** Only what is for a job: the whole of it, or a line. */
  readonly job?: string | undefined
  /** Only where an own field, by its id, holds a value: on the whole of it, or a line. */
  readonly field?: string | undefined
  readonly value?: string | undefined
  /** The key of the last row of the page before: moment and id. */
  readonly after?: string | undefined
  readonly limit: number
}

const VIEWS = {
  all: sql`true`,
  open: sql`r.state not in ('closed', 'rejected', 'withdrawn', 'cancelled', 'ordered')`,
  drafts: sql`r.state = 'draft'`,
  waiting: sql`(r.state in ('draft', 'sent back') or (r.state = 'in approval' and exists (
    select 1 from remark m where m.document_id = r.id and m.kind = 'question' and m.answered_at is null)))`,
}

/** What stands in Mine: what a person owns, and the drafts they raise for others. */
const mineOf = (personId: string) =>
  sql`(r.owner_id = ${personId} or (r.raised_by_id = ${personId} and r.state = 'draft'))`

/** A title, reason or number in which words stand. */
function holdsWords(words: string): SQL {
  const { anywhere, number } = likePattern(words)
  return sql`(r.title ilike ${anywhere} or r.why ilike ${anywhere} or r.number ilike ${number})`
}

/** What is for a job, and what holds a value in an own field. */
function fits(q: Pick<MineQuery, 'job' | 'field' | 'value'>): SQL {
  const job =
    q.job === undefined
      ? sql``
      : sql`and (r.job_id = ${q.job} or exists (select 1 from requisition_line j where j.requisition_id = r.id
        and j.job_id = ${q.job}))`
  if (q.field === undefined || q.value === undefined || q.value === '') return job
  const held = JSON.stringify({ [q.field]: q.value })
  return sql`${job} and (r.own @> ${held}::jsonb or exists (select 1 from requisition_line f
    where f.requisition_id = r.id and f.own @> ${held}::jsonb))`
}

/** One page of what a person owns or raised, newest change first, with what each waits for. */
export async function listMine(
  tx: Tx,
  personId: string,
  q: MineQuery,
): Promise<{ rows: MineRow[]; next: string | null }> {
  const [moment, id] = (q.after ?? '').split('_')
  const sound = moment !== undefined && id !== undefined && isId(id) && !Number.isNaN(Date.parse(moment))
  const after = sound ? sql`and (r.changed_at, r.id) < (${moment}::timestamptz, ${id}::uuid)` : sql``
  const words = q.words.trim() === '' ? sql`` : sql`and ${holdsWords(q.words.trim())}`
  const found = await rows<MineRow & { key: string }>(
    tx,
    sql`
    with page as (
      select r.* from ${REQUISITIONS} r
      where ${mineOf(personId)} and ${VIEWS[q.view]} ${words} ${fits(q)} ${after}
      order by r.changed_at desc, r.id desc limit ${q.limit + 1})
    select r.id, r.number, r.version, r.state,
      coalesce(nullif(r.title, ''), (select l.description from requisition_line l where l.requisition_id = r.id
        and l.description <> '' order by l.position limit 1), '') as title, coalesce(r.amount, d.net)::text as amount,
      to_char(r.state_since at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as since,
      coalesce(w.names, '{}') as "waitsFor", a.name as question,
      coalesce(l.share, 0)::float as "orderedShare", coalesce(w.share, 0)::float as "decisionShare",
        x.name as "stateBy",
      to_char(r.reminded_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as "remindedAt", b.number as job, r.own,
      to_char(r.changed_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') || '_' || r.id as key
    from page r left join job b on b.id = r.job_id
    left join lateral (select array_agg(distinct p.name) filter (where s.state = 'open') as names,
        avg(case when s.state in ('decided', 'met') then 1 else 0 end) as share
      from approval_seat s join person p on p.id = s.actor_id where s.document_id = r.id
        and r.state = 'in approval') w on true
    left join lateral (select p.name from remark m join person p on p.id = m.person_id
      where m.document_id = r.id and m.kind = 'question' and m.answered_at is null and r.state = 'in approval'
        order by m.at limit 1) a on true
    left join lateral (select
        sum(q.ordered * q.unit_price / q.price_base)
          / nullif(sum(q.quantity * q.unit_price / q.price_base), 0) as share
      from requisition_line q
      where q.requisition_id = r.id and r.state in ('part ordered', 'ordered', 'closed')) l on true
    left join lateral (select round(sum(round(q.quantity * q.unit_price / q.price_base, 2)), 2) as net
      from requisition_line q where q.requisition_id = r.id and r.amount is null) d on true
    left join lateral (select p.name from approval_decision v join person p on p.id = v.actor_id
      where v.document_id = r.id and v.taken_back_at is null and r.state in ('rejected', 'sent back')
        order by v.at desc limit 1) x on true
    order by r.changed_at desc, r.id desc`,
  )
  const page = found.slice(0, q.limit)
  return { rows: page.map(({ key: _, ...r }) => r), next: found.length > q.limit ? (page.at(-1)?.key ?? null) : null }
}

/** How many, how many wait for their owner, and their sums in the base currency. */
export async function sumMine(
  tx: Tx,
  personId: string,
): Promise<{ total: number; waiting: number; sum: DecimalText; openSum: DecimalText }> {
  const found = await row<{ total: number; waiting: number; sum: DecimalText; openSum: DecimalText }>(
    tx,
    sql`
    select count(*)::int as total, (count(*) filter (where ${VIEWS.waiting}))::int as waiting, coalesce(sum(r.amount),
      0) as sum,
      coalesce(sum(r.amount) filter (where ${VIEWS.open}), 0) as "openSum"
    from ${REQUISITIONS} r where ${mineOf(personId)}`,
  )
  return found ?? { total: 0, waiting: 0, sum: '0', openSum: '0' }
}

/** What waits for a person at each station. */
export async function countWaiting(
  tx: Tx,
  personId: string,
  buys: boolean,
): Promise<{ need: number; decision: number; order: number }> {
  const found = await row<{ need: number; decision: number; order: number }>(
    tx,
    sql`
    select (select count(*)::int from ${REQUISITIONS} r where r.owner_id = ${personId} and r.state <> 'draft'
      and ${VIEWS.waiting}) as need,
      (select count(distinct document_id)::int from approval_seat where actor_id = ${personId}
        and state = 'open') as decision,
      ${
        buys
          ? sql`(select count(*)::int from ${REQUISITIONS} r join requisition_line l on l.requisition_id = r.id
        where r.state in ('approved', 'part ordered') and l.quantity - l.ordered - l.cancelled - l.on_tray > 0)`
          : sql`0`
      } as "order"`,
  )
  return found ?? { need: 0, decision: 0, order: 0 }
}

export interface MineLine extends Pick<
  DraftLine,
  | 'description'
  | 'secondDescription'
  | 'quantity'
  | 'unit'
  | 'unitPrice'
  | 'priceBase'
  | 'discount'
  | 'currency'
  | 'supplierPart'
  | 'own'
> {
  readonly requisitionId: string
  readonly position: number
  readonly supplier: string | null
  readonly category: string | null
  readonly ordered: DecimalText
  readonly cancelled: DecimalText
  readonly job: string | null
}

/** The lines of requests, in the order in which these are given. */
export function listMineLines(tx: Tx, requisitionIds: readonly string[]): Promise<MineLine[]> {
  if (requisitionIds.length === 0) return Promise.resolve([])
  return rows<MineLine>(
    tx,
    sql`
    select l.requisition_id as "requisitionId", l.position, l.description,
      l.second_description as "secondDescription", l.quantity, l.unit, l.unit_price as "unitPrice",
      l.price_base as "priceBase",
      case when l.discount is null then null else json_build_object('of', l.discount_of, 'value',
        trim_scale(l.discount)::text) end as discount,
      l.currency, s.name as supplier, l.supplier_part as "supplierPart", c.name as category, l.ordered, l.cancelled,
        j.number as job, l.own
    from unnest(${sql.param([...requisitionIds])}::uuid[]) with ordinality as asked(id, n)
      join requisition_line l on l.requisition_id = asked.id left join supplier s on s.id = l.supplier_id left
        join category c on c.id = l.category_id left join job j on j.id = l.job_id
    order by asked.n, l.position`,
  )
}
