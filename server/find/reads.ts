import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { Tx } from '../db/client'
import { likePattern } from '../db/pattern'
import { rows } from '../db/rows'
import { ORDERS, SEEN_ORDERS } from '../order/visible'
import { visible, type Reader } from '../document/visible'
import { REQUISITIONS, SEEN_REQUISITIONS } from '../requisition/visible'

/** How alike a misspelt word must be to count. */
const ALIKE = 0.45

export function findRequisitions(
  tx: Tx,
  reader: Reader,
  words: string,
  limit: number,
): Promise<{ id: string; number: string | null; title: string; state: string; owner: string }[]> {
  const { anywhere, number } = likePattern(words)
  return rows(
    tx,
    sql`
    select r.id, r.number, r.title, r.state, p.name as owner from ${REQUISITIONS} r join person p on p.id = r.owner_id
    where (r.number ilike ${number} or r.title ilike ${anywhere} or word_similarity(${words}, r.title) > ${ALIKE})
      and ${visible(SEEN_REQUISITIONS, reader)}
    order by coalesce(r.number ilike ${number}, false) desc, r.title ilike ${anywhere} desc, word_similarity(${words},
      r.title) desc, r.changed_at desc limit ${limit}`,
  )
}

/** Issued orders that a person sees: all for whoever sees orders, else those that serve what they see. */
export function findOrders(
  tx: Tx,
  reader: Reader,
  words: string,
  limit: number,
): Promise<{ id: string; number: string; supplier: string; currency: string; net: DecimalText; state: string }[]> {
  const { anywhere, number } = likePattern(words)
  return rows(
    tx,
    sql`
    select o.id, o.number, s.name as supplier, o.currency, o.net, o.state from ${ORDERS} o
      join supplier s on s.id = o.supplier_id
    where o.number is not null and (o.number ilike ${number} or s.name ilike ${anywhere} or word_similarity(${words},
      s.name) > ${ALIKE}) and ${visible(SEEN_ORDERS, reader)}
    order by o.number ilike ${number} desc, o.sent_at desc limit ${limit}`,
  )
}

/** Jobs by number or name. */
export function findJobs(
  tx: Tx,
  words: string,
  limit: number,
): Promise<{ id: string; number: string; name: string; department: string | null; isOpen: boolean }[]> {
  const { anywhere, number } = likePattern(words)
  return rows(
    tx,
    sql`
    select j.id, j.number, j.name, d.name as department, j.is_open as "isOpen" from job j left
      join department d on d.id = j.department_id
    where j.number ilike ${number} or j.name ilike ${anywhere} or word_similarity(${words}, j.name) > ${ALIKE}
    order by j.number ilike ${number} desc, word_similarity(${words}, j.name) desc, j.number limit ${limit}`,
  )
}
