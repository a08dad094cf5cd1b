import { sql } from 'drizzle-orm'
import type { PaymentTerms } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import type { Standing } from '#core/supplier/record'
import type { SupplierFacts } from '#core/supplier/warning'
import type { Tx } from '../db/client'
import { holdsAll, isAlike, isNumbered, likePattern } from '../db/pattern'
import { named, read, readOne } from '../db/read'
import { supplier } from '../db/schema/supplier'
import { person } from '../db/schema/people'
import { SECONDS } from '../db/moments'

const s = named(supplier, 's')
const p = named(person, 'p')

export interface SupplierRow {
  id: string
  number: string
  name: string
  town: string
  currency: string
  standing: string
  warning: string | null
  leadDays: number
  termsKind: PaymentTerms['kind']
  termsDays: number
  freight: DecimalText | null
  freightFreeFrom: DecimalText | null
  facts: SupplierFacts
}
/** What people are warned of: why it is on hold, else its warning of today. */
const WARNED = sql<string | null>`case when ${s.standing} in ('on hold', 'blocked') and ${s.standingReason} <> ''
  then ${s.standingReason} else ${s.warning} end`
/** What a verdict has to know of a supplier `s`. One that is blocked, refused or merged is as good as on hold. */
export const SUPPLIER_FACTS = sql<SupplierFacts>`json_build_object('id', ${s.id}, 'name', ${s.name}, 'standing',
  case when ${s.standing} in ('active', 'proposed') then ${s.standing} else 'on hold' end,
  'leadDays', ${s.leadDays}, 'warning', ${WARNED}, 'warningMode', ${s.warningMode})`
/** Neither refused nor merged into another. */
const IS_THERE = sql`${s.standing} not in ('refused', 'merged')`
const SUPPLIER = {
  id: s.id,
  number: s.number,
  name: s.name,
  town: s.town,
  currency: s.currency,
  standing: s.standing,
  warning: WARNED,
  leadDays: s.leadDays,
  termsKind: s.termsKind,
  termsDays: s.termsDays,
  freight: s.freight,
  freightFreeFrom: s.freightFreeFrom,
  facts: SUPPLIER_FACTS,
}

export function findSupplier(tx: Tx, id: string): Promise<SupplierRow | null> {
  return readOne(tx, { ...SUPPLIER }, sql`from ${s} where ${s.id} = ${id}`)
}

/** Suppliers that a text names, in whole by name or number, or whose name it begins. */
export function listCalled(
  tx: Tx,
  texts: readonly string[],
): Promise<(SupplierRow & { typed: string; isWhole: boolean })[]> {
  const isWhole = sql`lower(asked.typed) in (lower(${s.name}), lower(${s.number}))`
  return read(
    tx,
    { ...SUPPLIER, typed: sql<string>`asked.typed`, isWhole: sql<boolean>`${isWhole}` },
    sql`from unnest(${sql.param([...texts])}::text[]) as asked(typed)
      join ${s} on ${isWhole} or starts_with(lower(${s.name}), lower(asked.typed))
    where ${IS_THERE} and asked.typed <> ''`,
  )
}

/** Suppliers by any part of the name, number or town; all of them for no words. */
export function searchSuppliers(tx: Tx, words: string, limit: number): Promise<SupplierRow[]> {
  const wanted = likePattern(words)
  return read(
    tx,
    { ...SUPPLIER },
    sql`from ${s} where (${holdsAll(sql`concat_ws(' ', ${s.name}, ${s.town})`, wanted)}
      or ${isNumbered(s.number, wanted)} or ${isAlike(words, s.name)})
      and ${IS_THERE}
    order by ${s.standing} <> 'active', ${holdsAll(s.name, wanted)} desc, ${s.name} limit ${limit}`,
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
  return read(
    tx,
    {
      id: s.id,
      number: s.number,
      name: s.name,
      town: s.town,
      standing: s.standing,
      taxNumber: s.taxNumber,
      email: s.email,
    },
    sql`from ${s}
    where ${IS_THERE} and ((${tax} <> '' and upper(regexp_replace(coalesce(${s.taxNumber}, ''),
      '[^A-Za-z0-9]', '', 'g')) = ${tax})
      or (${domain} <> '' and lower(${s.email}) like ${`%@${domain.replace(/[\\%_]/g, '\\$&')}`}) or (${name} <> ''
        and (similarity(lower(${s.name}), ${name}) > 0.25 or word_similarity(${name}, lower(${s.name})) > 0.5)))
    order by similarity(lower(${s.name}), ${name}) desc limit 30`,
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
  standing: Standing
  warning: string | null
  proposedById: string | null
  proposedBy: string | null
  proposedAt: string | null
  note: string
  taxFormHash: string | null
}
/** A supplier with what was said of it when it was proposed; `lock` takes its row. */
export function findProposal(tx: Tx, id: string, lock = false): Promise<ProposalRow | null> {
  return readOne(
    tx,
    {
      id: s.id,
      number: s.number,
      name: s.name,
      town: s.town,
      address: s.address,
      email: s.email,
      telephone: s.telephone,
      taxNumber: s.taxNumber,
      currency: s.currency,
      standing: sql<Standing>`${s.standing}`,
      warning: s.warning,
      proposedById: s.proposedById,
      proposedBy: p.name,
      proposedAt: SECONDS(s.proposedAt),
      note: s.proposalNote,
      taxFormHash: s.taxFormHash,
    },
    sql`from ${s} left join ${p} on ${p.id} = ${s.proposedById}
      where ${s.id} = ${id} ${lock ? sql`for update of s` : sql``}`,
  )
}
