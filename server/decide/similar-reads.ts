import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import { moneyOf } from '#core/base/money'
import type { RequestDecision } from '#shared/contract/decide'
import type { Context } from '../context'
import { named, read, sure } from '../db/read'
import { person } from '../db/schema/people'
import { requisitionLine } from '../db/schema/requisition'
import { visible } from '../document/visible'
import type { RequisitionRow } from '../requisition/reads'
import { requisitions, SEEN_REQUISITIONS } from '../requisition/visible'

const r = requisitions('r')
const l = named(requisitionLine, 'l')
const p = named(person, 'p')

/** How far back one looks for something alike, and how much of it is told. Common practice, no source. */
const DAYS = 90
const MOST = 5

/**
 * What the same department asked for in the last days of the same items, or else of the same category from the same
 * supplier, as far as whoever reads may see it.
 */
export async function listSimilar(
  ctx: Context,
  of: RequisitionRow,
  currency: string,
): Promise<RequestDecision['similar']> {
  const items = of.lines.flatMap((line) => (line.itemId === null ? [] : [line.itemId]))
  const pairs = of.lines.flatMap((line) =>
    line.itemId !== null || line.categoryId === null || line.supplierId === null
      ? []
      : [{ c: line.categoryId, s: line.supplierId }],
  )
  if (items.length + pairs.length === 0) return []
  const since = new Date(ctx.now.getTime() - DAYS * 86_400_000).toISOString()
  const found = await read(
    ctx.tx,
    {
      id: r.id,
      number: sure(r.number),
      title: r.title,
      owner: p.name,
      day: sql<Day>`${r.sentAt}::date::text`,
      amount: sure(r.amount),
    },
    sql`from ${r} join ${p} on ${p.id} = ${r.ownerId}
      where ${r.departmentId} = ${of.draft.departmentId} and ${r.id} <> ${of.id} and ${r.sentAt} >= ${since}
        and ${r.amount} is not null and ${r.state} not in ('draft', 'rejected', 'withdrawn', 'cancelled')
        and exists (select 1 from ${l} where ${l.requisitionId} = ${r.id}
          and (${l.itemId} = any(${sql.param(items)}::uuid[]) or exists (
            select 1 from json_to_recordset(${JSON.stringify(pairs)}::json) as alike(c uuid, s uuid)
            where alike.c = ${l.categoryId} and alike.s = ${l.supplierId})))
        and ${visible(SEEN_REQUISITIONS, ctx)} order by ${r.sentAt} desc, ${r.number} desc limit ${MOST}`,
  )
  return found.map((f) => ({ ...f, amount: moneyOf(f.amount, currency) }))
}
