import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { Tx } from '../db/client'
import { ALIKE, holdsAll, isNumbered, likePattern } from '../db/pattern'
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

export function findRequisitions(
  tx: Tx,
  reader: Reader,
  words: string,
  limit: number,
): Promise<{ id: string; number: string | null; title: string; state: string; owner: string }[]> {
  const wanted = likePattern(words)
  return read(
    tx,
    { id: r.id, number: r.number, title: r.title, state: r.state, owner: p.name },
    sql`from ${r} join ${p} on ${p.id} = ${r.ownerId}
    where (${isNumbered(r.number, wanted)} or ${holdsAll(r.title, wanted)} or word_similarity(${words},
    ${r.title}) > ${ALIKE})
      and ${visible(SEEN_REQUISITIONS, reader)}
    order by ${isNumbered(r.number, wanted)} desc, ${holdsAll(r.title, wanted)} desc,
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
  const wanted = likePattern(words)
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
    where ${o.number} is not null and (${isNumbered(o.number, wanted)} or ${holdsAll(s.name, wanted)}
    or word_similarity(${words},
      ${s.name}) > ${ALIKE}) and ${visible(SEEN_ORDERS, reader)}
    order by ${isNumbered(o.number, wanted)} desc, ${o.sentAt} desc limit ${limit}`,
  )
}

/** Jobs by number or name. */
export function findJobs(
  tx: Tx,
  words: string,
  limit: number,
): Promise<{ id: string; number: string; name: string; department: string | null; isOpen: boolean }[]> {
  const wanted = likePattern(words)
  return read(
    tx,
    { id: j.id, number: j.number, name: j.name, department: d.name, isOpen: j.isOpen },
    sql`from ${j} left
      join ${d} on ${d.id} = ${j.departmentId}
    where ${isNumbered(j.number, wanted)} or ${holdsAll(j.name, wanted)}
      or word_similarity(${words}, ${j.name}) > ${ALIKE}
    order by ${isNumbered(j.number, wanted)} desc, word_similarity(${words}, ${j.name}) desc,
      ${j.number} limit ${limit}`,
  )
}
