import { sql } from 'drizzle-orm'
import { type DecimalText } from '#core/base/decimal'
import { type Tx } from '../db/client'
import { row, rows } from '../db/rows'

export interface SupplierRow { id: string; number: string; name: string; town: string; currency: string; standing: string; warning: string | null; leadDays: number; termsKind: string; termsDays: number; freight: DecimalText | null; freightFreeFrom: DecimalText | null }
const SUPPLIER = sql`s.id, s.number, s.name, s.town, s.currency, s.standing, s.warning, s.lead_days as "leadDays", s.terms_kind as "termsKind",
  s.terms_days as "termsDays", s.freight, s.freight_free_from as "freightFreeFrom"`

export function findSupplier(tx: Tx, id: string): Promise<SupplierRow | null> {
  return row<SupplierRow>(tx, sql`select ${SUPPLIER} from supplier s where s.id = ${id}`)
}

/** Suppliers by any part of the name, number or town; all of them for no words. */
export function searchSuppliers(tx: Tx, words: string, limit: number): Promise<SupplierRow[]> {
  const like = `%${words.trim().replace(/[\\%_]/g, '\\$&')}%`
  return rows<SupplierRow>(tx, sql`
    select ${SUPPLIER} from supplier s where s.name ilike ${like} or s.number ilike ${like} or s.town ilike ${like}
    order by s.standing <> 'active', s.name limit ${limit}`)
}
