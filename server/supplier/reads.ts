import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { SupplierFacts } from '#core/supplier/warning'
import type { Tx } from '../db/client'
import { row, rows } from '../db/rows'

export interface SupplierRow {
  id: string
  number: string
  name: string
  town: string
  currency: string
  standing: string
  warning: string | null
  leadDays: number
  termsKind: string
  termsDays: number
  freight: DecimalText | null
  freightFreeFrom: DecimalText | null
  facts: SupplierFacts
}
/** What a verdict has to know of a supplier `s`. A refused one is as good as on hold. */
export const SUPPLIER_FACTS = sql`json_build_object('id', s.id, 'name', s.name, 'standing',
  case when s.standing = 'refused' then 'on hold' else s.standing end,
  'leadDays', s.lead_days, 'warning', s.warning, 'warningMode', s.warning_mode)`
const SUPPLIER = sql`s.id, s.number, s.name, s.town, s.currency, s.standing, s.warning, s.lead_days as "leadDays",
  s.terms_kind as "termsKind",
  s.terms_days as "termsDays", s.freight, s.freight_free_from as "freightFreeFrom", ${SUPPLIER_FACTS} as facts`

export function findSupplier(tx: Tx, id: string): Promise<SupplierRow | null> {
  return row<SupplierRow>(tx, sql`select ${SUPPLIER} from supplier s where s.id = ${id}`)
}

/** Suppliers by any part of the name, number or town; all of them for no words. */
export function searchSuppliers(tx: Tx, words: string, limit: number): Promise<SupplierRow[]> {
  const like = `%${words.trim().replace(/[\\%_]/g, '\\$&')}%`
  return rows<SupplierRow>(
    tx,
    sql`
    select ${SUPPLIER} from supplier s where (s.name ilike ${like} or s.number ilike ${like}
      or s.town ilike ${like}) and s.standing <> 'refused'
    order by s.standing <> 'active', s.name limit ${limit}`,
  )
}

/** Suppliers that may be the one described: by tax number, mail domain or a like name; the core says which are. */
export function listCandidates(
  tx: Tx,
  like: { name: string; taxNumber: string; email: string },
): Promise<
  {
    id: string
    number: string
    name: string
    town: string
    standing: string
    taxNumber: string | null
    email: string | null
  }[]
> {
  const tax = like.taxNumber.toUpperCase().replace(/[^A-Z0-9]/g, '')
  const domain = like.email.toLowerCase().split('@')[1] ?? ''
  const name = like.name.toLowerCase().trim()
  return rows(
    tx,
    sql`
    select s.id, s.number, s.name, s.town, s.standing, s.tax_number as "taxNumber", s.email from supplier s
    where s.standing <> 'refused' and ((${tax} <> '' and upper(regexp_replace(coalesce(s.tax_number, ''),
      '[^A-Za-z0-9]', '', 'g')) = ${tax})
      or (${domain} <> '' and lower(s.email) like ${`%@${domain.replace(/[\\%_]/g, '\\$&')}`}) or (${name} <> ''
        and (similarity(lower(s.name), ${name}) > 0.25 or word_similarity(${name}, lower(s.name)) > 0.5)))
    order by similarity(lower(s.name), ${name}) desc limit 30`,
  )
}

export interface ProposalRow {
  id: string
  number: string
  name: string
  town: string
  address: string
  email: string | null
  telephone: string
  taxNumber: string | null
  currency: string
  standing: string
  warning: string | null
  proposedById: string | null
  proposedBy: string | null
  proposedAt: string | null
  note: string
  taxFormHash: string | null
}
/** A supplier with what was said of it when it was proposed; `lock` takes its row. */
export function findProposal(tx: Tx, id: string, lock = false): Promise<ProposalRow | null> {
  return row<ProposalRow>(
    tx,
    sql`
    select s.id, s.number, s.name, s.town, s.address, s.email, s.telephone, s.tax_number as "taxNumber", s.currency,
      s.standing, s.warning, s.proposed_by_id as "proposedById",
      p.name as "proposedBy", to_char(s.proposed_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as "proposedAt",
        s.proposal_note as note, s.tax_form_hash as "taxFormHash"
    from supplier s left join person p on p.id = s.proposed_by_id
      where s.id = ${id} ${lock ? sql`for update of s` : sql``}`,
  )
}
