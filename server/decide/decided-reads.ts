import { sql, type SQL } from 'drizzle-orm'
import type { DecidedRow } from '#shared/contract/decided'
import type { Tx } from '../db/client'
import { holdsAll, isNumbered, likePattern } from '../db/pattern'
import { PAGE_KEY, SECONDS } from '../db/moments'
import { readPageMark } from '../db/page-mark'
import { named, read } from '../db/read'
import { approvalDecision, approvalPolicy, approvalRoute } from '../db/schema/approval'
import { person } from '../db/schema/people'
import { d, SORT, TITLE, visibleDocument } from './document-reads'
import type { Actor } from '../people/actor'

const v = named(approvalDecision, 'v')
const t = named(approvalRoute, 't')
const y = named(approvalPolicy, 'y')
const a = named(person, 'a')
const f = named(person, 'f')
const w = named(person, 'w')
const m = named(person, 'm')

/** Which decisions are looked for: one's own, those of people one is above, or all that one may see. */
export interface DecidedQuery {
  readonly whose: 'own' | 'people' | 'all'
  readonly outcome: 'approved' | 'sent back' | 'rejected' | null
  readonly words: string
  /** From the first moment of a day, up to the first of another. */
  readonly from: Date | null
  readonly until: Date | null
  readonly after?: string | undefined
  readonly limit: number
}

/** Everybody in the reporting line below a person; a circle ends where it began. */
const below = (personId: string) => sql`with recursive line(found) as (
    select ${m.id} from ${m} where ${m.managerId} = ${personId}
    union select ${m.id} from ${m} join line on ${m.managerId} = line.found)
  select found from line`

function whose(q: DecidedQuery, personId: string): SQL {
  if (q.whose === 'own') return sql`(${v.actorId} = ${personId} or ${v.forId} = ${personId})`
  return q.whose === 'people' ? sql`${v.actorId} in (${below(personId)})` : sql`true`
}

/** Decisions on what whoever looks may see, the newest first, with the version of the policy each followed. */
export async function listDecided(
  tx: Tx,
  actor: Actor,
  q: DecidedQuery,
): Promise<{ rows: DecidedRow[]; next: string | null }> {
  const looked = likePattern(q.words)
  const mark = readPageMark(q.after)
  const conditions = [
    whose(q, actor.id),
    visibleDocument(actor),
    ...(q.outcome === null ? [] : [sql`${v.outcome} = ${q.outcome}`]),
    ...(q.words.trim() === ''
      ? []
      : [sql`(${isNumbered(d.number, looked)} or ${holdsAll(sql`(${TITLE} || ' ' || ${w.name})`, looked)})`]),
    ...(q.from === null ? [] : [sql`${v.at} >= ${q.from.toISOString()}`]),
    ...(q.until === null ? [] : [sql`${v.at} < ${q.until.toISOString()}`]),
    ...(mark === null ? [] : [sql`(${v.at}, ${v.id}) < (${mark.moment}::timestamptz, ${mark.id}::uuid)`]),
  ]
  const found = await read(
    tx,
    {
      id: v.id,
      documentId: d.id,
      document: SORT,
      requisitionId: sql<string>`case when ${d.kind} = 'requisition' then ${d.id}::text else '' end`,
      number: sql<string>`coalesce(${d.number}, '')`,
      title: TITLE,
      owner: w.name,
      amount: t.amount,
      currency: t.currency,
      outcome: v.outcome,
      comment: v.comment,
      at: SECONDS(v.at),
      by: a.name,
      isOwn: sql<boolean>`${v.actorId} = ${actor.id}`,
      forName: sql<string | null>`${f.name}`,
      takenBack: sql<boolean>`${v.takenBackAt} is not null`,
      policy: sql<number | null>`${y.number}`,
      state: d.state,
      key: PAGE_KEY(v.at, v.id),
    },
    sql`from ${v} join ${d} on ${d.id} = ${v.documentId} join ${t} on ${t.id} = ${v.routeId}
      join ${a} on ${a.id} = ${v.actorId} join ${w} on ${w.id} = ${d.ownerId}
      left join ${f} on ${f.id} = ${v.forId} left join ${y} on ${y.id} = ${v.policyId}
      where ${sql.join(conditions, sql` and `)} order by ${v.at} desc, ${v.id} desc limit ${q.limit + 1}`,
  )
  const rows = found.slice(0, q.limit)
  return {
    rows: rows.map(({ key: _, ...row }) => row),
    next: found.length > q.limit ? (rows.at(-1)?.key ?? null) : null,
  }
}
