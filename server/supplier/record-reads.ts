import { sql } from 'drizzle-orm'
import type { Day, PaymentTerms } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import type { BankDetails } from '#core/supplier/bank'
import type { Language } from '#core/supplier/language'
import type { ContactUse, Standing } from '#core/supplier/record'
import type { WarningMode } from '#core/supplier/warning'
import type { Tx } from '../db/client'
import { SECONDS } from '../db/moments'
import { named, read, readOne } from '../db/read'
import { category, item } from '../db/schema/catalogue'
import { file } from '../db/schema/file'
import { person } from '../db/schema/people'
import { bankChange, supplier, supplierContact, supplierDocument } from '../db/schema/supplier'

const s = named(supplier, 's')
const k = named(supplierContact, 'k')
const sd = named(supplierDocument, 'sd')
const b = named(bankChange, 'b')
const f = named(file, 'f')
const p = named(person, 'p')
const i = named(item, 'i')
const c = named(category, 'c')
const into = named(supplier, 'kept')

/** What is kept of a supplier on its own page. */
export interface RecordRow {
  version: number
  number: string
  name: string
  email: string | null
  emailBefore: string | null
  emailChangedAt: string | null
  channel: string
  termsKind: PaymentTerms['kind']
  termsDays: number
  leadDays: number
  freight: DecimalText | null
  freightFreeFrom: DecimalText | null
  minimumOrder: DecimalText | null
  language: Language
  standing: Standing
  standingReason: string
  standingSince: string | null
  standingUntil: Day | null
  warning: string | null
  warningMode: WarningMode
  datedWarning: string | null
  warningFrom: Day | null
  warningUntil: Day | null
  bank: BankDetails | null
  mergedIntoId: string | null
  mergedInto: string | null
}

/** The record of a supplier; `lock` takes its row, so that changes of it go one after the other. */
export function findRecord(tx: Tx, id: string, lock = false): Promise<RecordRow | null> {
  return readOne(
    tx,
    {
      version: s.version,
      number: s.number,
      name: s.name,
      email: s.email,
      emailBefore: s.emailBefore,
      emailChangedAt: SECONDS(s.emailChangedAt),
      channel: s.channel,
      termsKind: s.termsKind,
      termsDays: s.termsDays,
      leadDays: s.leadDays,
      freight: s.freight,
      freightFreeFrom: s.freightFreeFrom,
      minimumOrder: s.minimumOrder,
      language: s.language,
      standing: sql<Standing>`${s.standing}`,
      standingReason: s.standingReason,
      standingSince: SECONDS(s.standingSince),
      standingUntil: s.standingUntil,
      warning: s.warning,
      warningMode: sql<WarningMode>`${s.warningMode}`,
      datedWarning: s.datedWarning,
      warningFrom: s.warningFrom,
      warningUntil: s.warningUntil,
      bank: s.bank,
      mergedIntoId: s.mergedIntoId,
      mergedInto: into.name,
    },
    sql`from ${s} left join ${into} on ${into.id} = ${s.mergedIntoId}
      where ${s.id} = ${id} ${lock ? sql`for no key update of s` : sql``}`,
  )
}

export interface ContactRow {
  name: string
  about: ContactUse
  email: string
  telephone: string
  address: string
}
export function listContacts(tx: Tx, id: string): Promise<ContactRow[]> {
  return read(
    tx,
    { name: k.name, about: k.about, email: k.email, telephone: k.telephone, address: k.address },
    sql`from ${k} where ${k.supplierId} = ${id} order by ${k.position}`,
  )
}

export interface PaperRow {
  id: string
  name: string
  validUntil: Day | null
  by: string
  at: string
}
/** The papers about a supplier, those that end first before the others. */
export function listPapers(tx: Tx, id: string): Promise<PaperRow[]> {
  return read(
    tx,
    { id: sd.id, name: sd.name, validUntil: sd.validUntil, by: p.name, at: SECONDS(sd.addedAt) },
    sql`from ${sd} join ${p} on ${p.id} = ${sd.addedById}
      where ${sd.supplierId} = ${id} order by ${sd.validUntil} nulls last, ${sd.addedAt}`,
  )
}

export function findPaper(
  tx: Tx,
  id: string,
  paperId: string,
): Promise<{ name: string; mime: string; bytes: Buffer; fileHash: string; validUntil: Day | null } | null> {
  return readOne(
    tx,
    { name: sd.name, mime: f.mime, bytes: f.bytes, fileHash: sd.fileHash, validUntil: sd.validUntil },
    sql`from ${sd} join ${f} on ${f.hash} = ${sd.fileHash} where ${sd.id} = ${paperId} and ${sd.supplierId} = ${id}`,
  )
}

export interface EndingPaper {
  id: string
  name: string
  validUntil: Day | null
  supplierId: string
  supplier: string
}
/** Papers that end by a day, of suppliers that are there, and of which nobody was told yet. */
export function listEndingPapers(tx: Tx, by: Day): Promise<EndingPaper[]> {
  return read(
    tx,
    { id: sd.id, name: sd.name, validUntil: sd.validUntil, supplierId: s.id, supplier: s.name },
    sql`from ${sd} join ${s} on ${s.id} = ${sd.supplierId}
      where ${sd.validUntil} <= ${by} and ${sd.remindedAt} is null
        and ${s.standing} in ('active', 'on hold', 'proposed') order by ${sd.validUntil}, ${sd.id}
      for no key update of sd skip locked`,
  )
}

export interface BankChangeRow {
  details: BankDetails
  byId: string
  by: string
  at: string
  toldTo: readonly string[]
}
/** The change of bank details that waits for a second person. */
export function findBankChange(tx: Tx, id: string): Promise<BankChangeRow | null> {
  return readOne(
    tx,
    { details: b.details, byId: b.byId, by: p.name, at: SECONDS(b.at), toldTo: b.toldTo },
    sql`from ${b} join ${p} on ${p.id} = ${b.byId} where ${b.supplierId} = ${id}`,
  )
}

/** Suppliers whose hold ended before a day, and those whose dated warning begins or has ended. */
export async function listTurning(tx: Tx, today: Day): Promise<{ id: string }[]> {
  return read(
    tx,
    { id: s.id },
    sql`from ${s} where (${s.standing} = 'on hold' and ${s.standingUntil} < ${today})
      or (${s.datedWarning} is not null and (${s.warning} is not null) <>
        (coalesce(${s.warningFrom} <= ${today}, true) and coalesce(${s.warningUntil} >= ${today}, true)))
      order by ${s.id}`,
  )
}

/** The categories in which a supplier has something in the catalogue, with how much. */
export function listServedCategories(tx: Tx, supplierId: string): Promise<{ name: string; items: number }[]> {
  return read(
    tx,
    { name: c.name, items: sql<number>`count(*)::int` },
    sql`from ${i} join ${c} on ${c.id} = ${i.categoryId} where ${i.supplierId} = ${supplierId} and not ${i.retired}
      group by ${c.name} order by count(*) desc, ${c.name} limit 12`,
  )
}
