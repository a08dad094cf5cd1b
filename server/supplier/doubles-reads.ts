import { sql } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { named, read } from '../db/read'
import { supplier } from '../db/schema/supplier'

const a = named(supplier, 'a')
const b = named(supplier, 'b')

export interface PairedSupplier {
  id: string
  number: string
  name: string
  town: string
  standing: string
  taxNumber: string | null
  email: string | null
}
const side = (x: typeof a) =>
  sql<PairedSupplier>`json_build_object('id', ${x.id}, 'number', ${x.number}, 'name', ${x.name}, 'town', ${x.town},
    'standing', ${x.standing}, 'taxNumber', ${x.taxNumber}, 'email', ${x.email})`
const plainTax = (x: typeof a) => sql`upper(regexp_replace(coalesce(${x.taxNumber}, ''), '[^A-Za-z0-9]', '', 'g'))`
const domain = (x: typeof a) => sql`split_part(lower(coalesce(${x.email}, '')), '@', 2)`
const isThere = (x: typeof a) => sql`${x.standing} not in ('refused', 'merged')`

/**
 * Pairs of suppliers of which something is the same or alike, over the whole list; the core says which may be one. Like
 * names are those of which pg_trgm says so, by the index of names.
 */
export function listPairs(tx: Tx, most: number): Promise<{ one: PairedSupplier; other: PairedSupplier }[]> {
  return read(
    tx,
    { one: side(a), other: side(b) },
    sql`from ${a} join ${b} on ${a.id} < ${b.id} and (lower(${a.name}) % lower(${b.name})
      or (${plainTax(a)} = ${plainTax(b)} and ${plainTax(a)} <> '')
      or (${domain(a)} = ${domain(b)} and ${domain(a)} <> ''))
    where ${isThere(a)} and ${isThere(b)}
    order by similarity(lower(${a.name}), lower(${b.name})) desc, ${a.name}, ${b.name} limit ${most}`,
  )
}
