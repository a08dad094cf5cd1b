import { sql } from 'drizzle-orm'
import { may } from '#core/people/rights'
import { type DecimalText } from '#core/base/decimal'
import { type Tx } from '../db/client'
import { likePattern } from '../db/pattern'
import { rows } from '../db/rows'
import { type Actor } from '../people/actor'
import { visibleTo } from '../requisition/visible'

/** How alike a misspelt word must be to count. */
const ALIKE = 0.45

export function findRequisitions(tx: Tx, actor: Actor, words: string, limit: number): Promise<{ id: string; number: string | null; title: string; state: string; owner: string }[]> {
  const { anywhere, number } = likePattern(words)
  return rows(tx, sql`
    select r.id, r.number, r.title, r.state, p.name as owner from requisition r join person p on p.id = r.owner_id
    where (r.number ilike ${number} or r.title ilike ${anywhere} or word_similarity(${words}, r.title) > ${ALIKE}) and ${visibleTo(actor)}
    order by coalesce(r.number ilike ${number}, false) desc, r.title ilike ${anywhere} desc, word_similarity(${words}, r.title) desc, r.changed_at desc limit ${limit}`)
}

/** Issued orders that a person sees: all for whoever sees orders, else those that serve what they see. */
export function findOrders(tx: Tx, actor: Actor, words: string, limit: number): Promise<{ id: string; number: string; supplier: string; currency: string; net: DecimalText; state: string }[]> {
  const { anywhere, number } = likePattern(words)
  const visible = may(actor.grants, 'see orders') ? sql`true` : sql`exists (
    select 1 from order_line l join order_line_source x on x.order_line_id = l.id join requisition_line q on q.id = x.requisition_line_id
      join requisition r on r.id = q.requisition_id where l.order_id = o.id and ${visibleTo(actor)})`
  return rows(tx, sql`
    select o.id, o.number, s.name as supplier, o.currency, o.net, o.state from purchase_order o join supplier s on s.id = o.supplier_id
    where o.number is not null and (o.number ilike ${number} or s.name ilike ${anywhere} or word_similarity(${words}, s.name) > ${ALIKE}) and ${visible}
    order by o.number ilike ${number} desc, o.issued_at desc limit ${limit}`)
}
