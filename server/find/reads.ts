import { sql, type SQL } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import { comparedNumber } from '#core/order/conditions'
import type { Tx } from '../db/client'
import { holdsAll, isAlike, isNumber, isNumbered, likePattern } from '../db/pattern'
import { SEEN_ORDERS } from '../order/visible'
import { visible, type Reader } from '../document/visible'
import { SEEN_REQUISITIONS } from '../requisition/visible'
import { named, read, sure } from '../db/read'
import { document } from '../db/schema/document'
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
const h = named(department, 'h')
const d = named(document, 'd')

interface RequisitionFound {
  id: string
  number: string | null
  title: string
  state: string
  owner: string
}

/** How many titles that are alike are weighed against each other. */
const MOST_ALIKE = 2000

/** Requisitions by number or by words of the title; by likeness only where these are too few. */
export async function findRequisitions(
  tx: Tx,
  reader: Reader,
  words: string,
  limit: number,
): Promise<RequisitionFound[]> {
  const wanted = likePattern(words)
  const ask = (where: SQL, order: SQL, most: number) =>
    read(
      tx,
      { id: r.id, number: r.number, title: r.title, state: r.state, owner: p.name },
      sql`from ${r} join ${p} on ${p.id} = ${r.ownerId} where ${where} and ${visible(SEEN_REQUISITIONS, reader)}
      order by ${order}, ${r.changedAt} desc limit ${most}`,
    )
  const numbered = isNumbered(r.number, wanted)
  const holds = holdsAll(r.title, wanted)
  const sure = [
    ...(await ask(isNumber(r.number, wanted), sql`${r.number}`, limit)),
    ...(await ask(sql`${holds} and not ${numbered}`, sql`${r.sentAt} desc nulls last`, limit)),
  ].slice(0, limit)
  if (sure.length >= limit) return sure
  const some = sql`select ${d.id} from ${d} where ${d.kind} = 'requisition' and ${isAlike(words, d.title)}
    limit ${MOST_ALIKE}`
  const alike = await ask(
    sql`${r.id} = any(array(${some})) and not ${holds} and not ${numbered}`,
    sql`word_similarity(${words}, ${r.title}) desc`,
    limit - sure.length,
  )
  return [...sure, ...alike]
}

interface OrderFound {
  id: string
  number: string
  supplier: string
  currency: string
  net: DecimalText
  state: string
}

/** How many of the newest orders of suppliers are looked through: older ones are found by number. */
const NEWEST_OF_SUPPLIERS = 500

/**
 * Issued orders that a person sees: all for whoever sees orders, else those that serve what they see. By number, ours
 * or the one under which it was placed elsewhere, and the newest of suppliers that are called so.
 */
export async function findOrders(tx: Tx, reader: Reader, words: string, limit: number): Promise<OrderFound[]> {
  const wanted = likePattern(words)
  const ask = (where: SQL, order: SQL, most: number) =>
    read(
      tx,
      {
        id: o.id,
        number: sure(o.number),
        supplier: s.name,
        currency: o.currency,
        net: sure(o.net),
        state: o.state,
      },
      sql`from ${o} join ${s} on ${s.id} = ${o.supplierId}
      where ${o.number} is not null and ${where} and ${visible(SEEN_ORDERS, reader)}
      order by ${order} limit ${most}`,
    )
  const isTheirs = sql`(${isNumber(o.number, wanted)} or ${o.placedKey} = ${comparedNumber(words)})`
  const numbered = await ask(isTheirs, sql`${o.number}`, limit)
  const suppliers = await read(
    tx,
    { id: s.id },
    sql`from ${s} where ${holdsAll(s.name, wanted)} or ${isAlike(words, s.name)}`,
  )
  if (numbered.length >= limit || suppliers.length === 0) return numbered
  const newest = sql`select ${o.id} from ${o} where ${o.kind} = 'order' and ${o.number} is not null
    and ${o.supplierId} = any(${sql.param(suppliers.map((x) => x.id))}::uuid[])
    order by ${o.sentAt} desc limit ${NEWEST_OF_SUPPLIERS}`
  const named = await ask(
    sql`${o.id} = any(array(${newest})) and not ${isNumbered(o.number, wanted)} and not ${isTheirs}`,
    sql`${o.sentAt} desc`,
    limit - numbered.length,
  )
  return [...numbered, ...named]
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
    { id: j.id, number: j.number, name: j.name, department: h.name, isOpen: j.isOpen },
    sql`from ${j} left
      join ${h} on ${h.id} = ${j.departmentId}
    where ${isNumbered(j.number, wanted)} or ${holdsAll(j.name, wanted)}
      or ${isAlike(words, j.name)}
    order by ${isNumbered(j.number, wanted)} desc, word_similarity(${words}, ${j.name}) desc,
      ${j.number} limit ${limit}`,
  )
}
