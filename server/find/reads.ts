import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { Tx } from '../db/client'
import { likePattern } from '../db/pattern'
import { SEEN_ORDERS } from '../order/visible'
import { visible, type Reader } from '../document/visible'
import { SEEN_REQUISITIONS } from '../requisition/visible'
import { named, read, sure } from '../db/read'
import { department, person } from '../db/schema/people'
import { requisitions } from '../requisition/visible'
import { supplier } from '../db/schema/supplier'
import { orders } from '../order/visible'
import { job } from '../db/schema/request-form'

const p = named(person, 'p')
const r = requisitions('r')
const s = named(supplier, 's')
const o = orders('o')
const j = named(job, 'j')
const d = named(department, 'd')

/** How alike a misspelt word must be to count. */
const ALIKE = 0.45

export function findRequisitions(
  tx: Tx,
  reader: Reader,
  words: string,
  limit: number,
): Promise<{ id: string; number: string | null; title: string; state: string; owner: string }[]> {
  const { anywhere, number } = likePattern(words)
  return read(
    tx,
    { id: r.id, number: r.number, title: r.title, state: r.state, owner: p.name },
    sql`from ${r} join ${p} on ${p.id} = ${r.ownerId}
    where (${r.number} ilike ${number} or ${r.title} ilike ${anywhere} or word_similarity(${words},
    ${r.title}) > ${ALIKE})
      and ${visible(SEEN_REQUISITIONS, reader)}
    order by coalesce(${r.number} ilike ${number}, false) desc, ${r.title} ilike ${anywhere} desc,
    word_similarity(${words},
      ${r.title}) desc, ${r.changedAt} desc limit ${limit}`,
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
  return read(
    tx,
    {
      id: o.id,
      number: sure(o.number),
      supplier: s.name,
      currency: o.currency,
      net: sure(o.net),
      state: o.state,
    },
    sql`from ${o}
      join ${s} on ${s.id} = ${o.supplierId}
    where ${o.number} is not null and (${o.number} ilike ${number} or ${s.name} ilike ${anywhere}
    or word_similarity(${words},
      ${s.name}) > ${ALIKE}) and ${visible(SEEN_ORDERS, reader)}
    order by ${o.number} ilike ${number} desc, ${o.sentAt} desc limit ${limit}`,
  )
}

/** Jobs by number or name. */
export function findJobs(
  tx: Tx,
  words: string,
  limit: number,
): Promise<{ id: string; number: string; name: string; department: string | null; isOpen: boolean }[]> {
  const { anywhere, number } = likePattern(words)
  return read(
    tx,
    { id: j.id, number: j.number, name: j.name, department: d.name, isOpen: j.isOpen },
    sql`from ${j} left
      join ${d} on ${d.id} = ${j.departmentId}
    where ${j.number} ilike ${number} or ${j.name} ilike ${anywhere} or word_similarity(${words}, ${j.name}) > ${ALIKE}
    order by ${j.number} ilike ${number} desc, word_similarity(${words}, ${j.name}) desc, ${j.number} limit ${limit}`,
  )
}
