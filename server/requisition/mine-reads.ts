import { sql, type SQL } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { DraftLine } from '#core/requisition/draft'
import type { MineRow } from '#shared/contract/mine'
import { orderedShare, type WeighedLine } from '#core/requisition/line-progress'
import type { Tx } from '../db/client'
import { holdsAll, isNumbered, likePattern } from '../db/pattern'
import { readPageMark } from '../db/page-mark'
import { named, read, readOne, sure } from '../db/read'
import { document, remark } from '../db/schema/document'
import { requisitionLine } from '../db/schema/requisition'
import { job } from '../db/schema/request-form'
import { approvalDecision, approvalSeat } from '../db/schema/approval'
import { person } from '../db/schema/people'
import { requisitions } from '../requisition/visible'
import { supplier } from '../db/schema/supplier'
import { category } from '../db/schema/catalogue'
import { PAGE_KEY, SECONDS } from '../db/moments'

const d = named(document, 'd')
const m = named(remark, 'm')
const k = named(requisitionLine, 'k')
const f = named(requisitionLine, 'f')
const l = named(requisitionLine, 'l')
const b = named(job, 'b')
const s = named(approvalSeat, 's')
const p = named(person, 'p')
const z = named(requisitionLine, 'z')
const v = named(approvalDecision, 'v')
const r = requisitions('r')
const u = named(supplier, 'u')
const c = named(category, 'c')

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

/** That a remark `m` asks something of `r` that goes on once it is answered: whoever decides, or a buyer of a line. */
const IS_ASKED = sql`(${m.kind} = 'question' and ${m.answeredAt} is null
  and (${r.state} = 'in approval' or ${m.lineId} is not null))`

/**
 * A request that its owner has to do something with. A draft is its writer's own affair and waits for nobody.
 */
export const WAITS_FOR_OWNER = sql`(${r.state} = 'sent back' or (
  ${r.state} in ('in approval', 'approved', 'part ordered')
  and exists (select from ${m} where ${m.documentId} = ${r.id} and ${IS_ASKED})))`

const VIEWS = {
  all: sql`true`,
  open: sql`${r.state} not in ('closed', 'rejected', 'withdrawn', 'cancelled', 'ordered')`,
  drafts: sql`${r.state} = 'draft'`,
  waiting: WAITS_FOR_OWNER,
}

/**
 * What stands in Mine: what a person owns, and the drafts they raise for others. Two conditions that exclude each
 * other, so that each is answered by an index of its own.
 */
const mineOf = (personId: string): readonly [owned: SQL, raised: SQL] => [
  sql`${r.ownerId} = ${personId}`,
  sql`${r.state} = 'draft' and ${r.raisedById} = ${personId} and ${r.ownerId} <> ${personId}`,
]

/** A title, reason or number in which words stand. */
function holdsWords(words: string): SQL {
  const wanted = likePattern(words)
  return sql`(${holdsAll(sql`(${r.title} || ' ' || ${r.why})`, wanted)} or ${isNumbered(r.number, wanted)})`
}

/** What is for a job, and what holds a value in an own field. */
function fits(q: Pick<MineQuery, 'job' | 'field' | 'value'>): SQL {
  const job =
    q.job === undefined
      ? sql``
      : sql`and (${r.jobId} = ${q.job} or exists (select 1 from ${k} where ${k.requisitionId} = ${r.id}
        and ${k.jobId} = ${q.job}))`
  if (q.field === undefined || q.value === undefined || q.value === '') return job
  const held = JSON.stringify({ [q.field]: q.value })
  return sql`${job} and (${r.own} @> ${held}::jsonb or exists (select 1 from ${f}
    where ${f.requisitionId} = ${r.id} and ${f.own} @> ${held}::jsonb))`
}

/** What a query asks for of what a person owns or raised: one condition for each of the two. */
function fitting(personId: string, q: MineQuery): SQL[] {
  const words = q.words.trim() === '' ? sql`` : sql`and ${holdsWords(q.words.trim())}`
  return mineOf(personId).map((mine) => sql`${mine} and ${VIEWS[q.view]} ${words} ${fits(q)}`)
}

/** One page of what a person owns or raised, newest change first, with what each waits for. */
export async function listMine(
  tx: Tx,
  personId: string,
  q: MineQuery,
): Promise<{ rows: MineRow[]; next: string | null }> {
  const mark = readPageMark(q.after)
  const after =
    mark === null ? sql`` : sql`and (${r.changedAt}, ${r.id}) < (${mark.moment}::timestamptz, ${mark.id}::uuid)`
  const found = await read(
    tx,
    {
      id: r.id,
      number: r.number,
      version: r.version,
      state: r.state,
      title: sql<
        MineRow['title']
      >`coalesce(nullif(${r.title}, ''), (select ${l.description} from ${l} where ${l.requisitionId} = ${r.id}
        and ${l.description} <> '' order by ${l.position} limit 1), '')`,
      amount: r.amount,
      since: SECONDS(r.stateSince),
      waitsFor: sql<MineRow['waitsFor']>`coalesce(w.names, '{}')`,
      question: sql<string | null>`a.asker`,
      progress: sql<WeighedLine[] | null>`o.progress`,
      decisionShare: sql<number>`coalesce(w.share, 0)::float`,
      stateBy: sql<string | null>`x.decider`,
      remindedAt: SECONDS(r.remindedAt),
      job: b.number,
      own: r.own,
      key: PAGE_KEY(r.changedAt, r.id),
    },
    sql`from page r left join ${b} on ${b.id} = ${r.jobId}
    left join lateral (select array_agg(distinct ${p.name}) filter (where ${s.state} = 'open') as names,
        avg(case when ${s.state} in ('decided', 'met') then 1 else 0 end) as share
      from ${s} join ${p} on ${p.id} = ${s.actorId} where ${s.documentId} = ${r.id}
        and ${r.state} = 'in approval') w on true
    left join lateral (select ${p.name} as asker from ${m} join ${p} on ${p.id} = ${m.personId}
      where ${m.documentId} = ${r.id} and ${IS_ASKED} and ${r.state} in ('in approval', 'approved', 'part ordered')
        order by ${m.at} limit 1) a on true
    left join lateral (select json_agg(json_build_object(
        'quantity', ${z.quantity}::text, 'ordered', ${z.ordered}::text, 'unitPrice', ${z.unitPrice}::text,
        'priceBase', ${z.priceBase}::text, 'perBase', ${z.perBase}::text)) as progress
      from ${z}
      where ${z.requisitionId} = ${r.id} and ${r.state} in ('part ordered', 'ordered', 'closed')) o on true
    left join lateral (select ${p.name} as decider from ${v} join ${p} on ${p.id} = ${v.actorId}
      where ${v.documentId} = ${r.id} and ${v.takenBackAt} is null and ${r.state} in ('rejected', 'sent back')
        order by ${v.at} desc limit 1) x on true
    order by ${r.changedAt} desc, ${r.id} desc`,
    {
      before: sql`with page as (select * from (${sql.join(
        fitting(personId, q).map(
          (condition) => sql`(select r.* from ${r} where ${condition} ${after}
          order by ${r.changedAt} desc, ${r.id} desc limit ${q.limit + 1})`,
        ),
        sql` union all `,
      )}) r order by ${r.changedAt} desc, ${r.id} desc limit ${q.limit + 1})`,
    },
  )
  const page = found.slice(0, q.limit)
  return {
    rows: page.map(({ key: _, progress, ...r }) => ({ ...r, orderedShare: orderedShare(progress ?? []) })),
    next: found.length > q.limit ? (page.at(-1)?.key ?? null) : null,
  }
}

/** How many a person owns, and how many of them wait for them. */
export async function countMine(tx: Tx, personId: string): Promise<{ total: number; waiting: number }> {
  const [owned, raised] = mineOf(personId)
  const total = sql`(select count(*) from ${d} where ${d.ownerId} = ${personId} and ${d.kind} = 'requisition')
    + (select count(*) from ${r} where ${raised})`
  // Of drafts none waits.
  const waiting = sql`select count(*) from ${r} where ${owned} and ${VIEWS.waiting}`
  const found = await readOne(
    tx,
    {
      total: sql<number>`(${total})::int`,
      waiting: sql<number>`(${waiting})::int`,
    },
    sql``,
  )
  return found ?? { total: 0, waiting: 0 }
}

/** Everything that fits a query, without order. */
const allFitting = (personId: string, q: MineQuery) =>
  sql`(${sql.join(
    fitting(personId, q).map((condition) => sql`select r.* from ${r} where ${condition}`),
    sql` union all `,
  )}) r`

/** The amounts with which what fits a query was sent, each as often as it occurs: many occur again and again. */
export function listMineAmounts(
  tx: Tx,
  personId: string,
  q: MineQuery,
): Promise<{ amount: DecimalText; isOpen: boolean; count: number }[]> {
  return read(
    tx,
    { amount: sure(r.amount), isOpen: sql<boolean>`${VIEWS.open}`, count: sql<number>`count(*)::int` },
    sql`from ${allFitting(personId, q)} where ${r.amount} is not null group by 1, 2`,
  )
}

/** What fits a query and was never sent. */
export function listMineUnsent(tx: Tx, personId: string, q: MineQuery): Promise<{ id: string; isOpen: boolean }[]> {
  return read(
    tx,
    { id: r.id, isOpen: sql<boolean>`${VIEWS.open}` },
    sql`from ${allFitting(personId, q)} where ${r.amount} is null`,
  )
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
  | 'needBy'
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
  return read(
    tx,
    {
      requisitionId: l.requisitionId,
      position: l.position,
      description: l.description,
      secondDescription: l.secondDescription,
      quantity: l.quantity,
      unit: l.unit,
      unitPrice: l.unitPrice,
      priceBase: l.priceBase,
      discount: sql<
        MineLine['discount']
      >`case when ${l.discount} is null then null else json_build_object('of', ${l.discountOf}, 'value',
        trim_scale(${l.discount})::text) end`,
      currency: l.currency,
      supplier: u.name,
      supplierPart: l.supplierPart,
      needBy: sql<MineLine['needBy']>`coalesce(${l.needBy}, ${r.needBy})::text`,
      category: c.name,
      ordered: l.ordered,
      cancelled: l.cancelled,
      job: b.number,
      own: l.own,
    },
    sql`from unnest(${sql.param([...requisitionIds])}::uuid[]) with ordinality as asked(request, n)
      join ${l} on ${l.requisitionId} = asked.request join ${r} on ${r.id} = asked.request
      left join ${u} on ${u.id} = ${l.supplierId} left
        join ${c} on ${c.id} = ${l.categoryId} left join ${b} on ${b.id} = ${l.jobId}
    order by asked.n, ${l.position}`,
  )
}
