import { sql, type SQL } from 'drizzle-orm'
import type { Agreement, AgreementFixes, AgreementStanding } from '#core/agreement/fit'
import type { DrawnOn } from '#core/agreement/ceiling'
import type { Day, PaymentTerms } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import { moneyOf, type Money } from '#core/base/money'
import type { Tx } from '../db/client'
import { holdsAll, likePattern } from '../db/pattern'
import { named, read, readOne } from '../db/read'
import { agreement, agreementItem } from '../db/schema/agreement'
import { person } from '../db/schema/people'
import { supplier } from '../db/schema/supplier'

const a = named(agreement, 'a')
const x = named(agreementItem, 'x')
const s = named(supplier, 's')
const k = named(person, 'k')

/** An agreement as it is kept, with the names of those it names. */
export interface AgreementRow extends Agreement {
  readonly fixes: AgreementFixes
  readonly theirNumber: string
  readonly supplier: string
  readonly ceiling: DecimalText | null
  readonly drawn: DecimalText
  readonly warnPercent: DecimalText | null
  readonly warnDays: number
  readonly renewOn: Day | null
  readonly termsKind: PaymentTerms['kind'] | null
  readonly termsDays: number | null
  readonly note: string
  readonly keeperId: string
  readonly keeper: string
  readonly version: number
}

const AGREEMENT = {
  id: a.id,
  number: a.number,
  name: a.name,
  theirNumber: a.theirNumber,
  supplierId: a.supplierId,
  supplier: s.name,
  currency: a.currency,
  startsOn: a.startsOn,
  endsOn: a.endsOn,
  fixes: a.fixes,
  itemIds: sql<string[]>`coalesce((select array_agg(${x.itemId} order by ${x.position}) from ${x}
    where ${x.agreementId} = ${a.id}), '{}')`,
  departmentIds: a.departmentIds,
  isClosed: a.isClosed,
  ceiling: a.ceiling,
  drawn: a.drawn,
  warnPercent: sql<DecimalText | null>`trim_scale(${a.warnPercent})::text`,
  warnDays: a.warnDays,
  renewOn: a.renewOn,
  termsKind: a.termsKind,
  termsDays: a.termsDays,
  note: a.note,
  keeperId: a.keeperId,
  keeper: k.name,
  version: a.version,
}
const FROM = sql`from ${a} join ${s} on ${s.id} = ${a.supplierId} join ${k} on ${k.id} = ${a.keeperId}`

/** An agreement; `lock` takes its row, so that what is drawn stands still. */
export async function findAgreement(tx: Tx, id: string, lock = false): Promise<AgreementRow | null> {
  return readOne(tx, AGREEMENT, sql`${FROM} where ${a.id} = ${id} ${lock ? sql`for update of a` : sql``}`)
}

/** Every agreement with some suppliers, by number, whatever became of it. */
export async function listAgreementsWith(tx: Tx, supplierIds: readonly string[]): Promise<AgreementRow[]> {
  if (supplierIds.length === 0) return []
  return read(
    tx,
    AGREEMENT,
    sql`${FROM} where ${a.supplierId} = any(${sql.param([...supplierIds])}::uuid[]) order by ${a.number}`,
  )
}

/** Those of some suppliers that may still be drawn on, on a day or later. */
export const listOpenAgreementsWith = async (
  tx: Tx,
  supplierIds: readonly string[],
  day: Day,
): Promise<AgreementRow[]> =>
  (await listAgreementsWith(tx, supplierIds)).filter((row) => !row.isClosed && row.endsOn >= day)

const STANDS: Readonly<Record<AgreementStanding, (day: Day) => SQL>> = {
  'in force': (day) => sql`not ${a.isClosed} and ${day} between ${a.startsOn} and ${a.endsOn}`,
  'to come': (day) => sql`not ${a.isClosed} and ${a.startsOn} > ${day}`,
  ended: (day) => sql`not ${a.isClosed} and ${a.endsOn} < ${day}`,
  closed: () => sql`${a.isClosed}`,
}

/** Agreements by how they stand on a day and words of number, name, supplier and keeper; what ends first, first. */
export function listAgreements(
  tx: Tx,
  asked: { readonly standing: AgreementStanding | 'any'; readonly words: string; readonly day: Day },
  limit: number,
): Promise<AgreementRow[]> {
  const words = sql`concat_ws(' ', ${a.number}, ${a.theirNumber}, ${a.name}, ${s.name}, ${k.name})`
  return read(
    tx,
    AGREEMENT,
    sql`${FROM} where ${asked.standing === 'any' ? sql`true` : STANDS[asked.standing](asked.day)}
      and ${holdsAll(words, likePattern(asked.words))}
    order by ${a.isClosed} or ${a.endsOn} < ${asked.day}, ${a.endsOn}, ${a.number} limit ${limit}`,
  )
}

/** Agreements whose day of renewal has come, and whose keeper was not told of it yet; their rows locked. */
export function listRenewals(tx: Tx, today: Day): Promise<AgreementRow[]> {
  return read(
    tx,
    AGREEMENT,
    sql`${FROM} where ${a.renewOn} <= ${today} and ${a.renewalToldAt} is null and not ${a.isClosed}
      and ${a.endsOn} >= ${today} order by ${a.id} for update of a`,
  )
}

export interface AgreementItemRow {
  itemId: string
  unitPrice: DecimalText | null
}
/** What stands in an agreement, in its order. */
export function listAgreementItems(tx: Tx, agreementId: string): Promise<AgreementItemRow[]> {
  return read(
    tx,
    { itemId: x.itemId, unitPrice: sql<DecimalText | null>`trim_scale(${x.unitPrice})::text` },
    sql`from ${x} where ${x.agreementId} = ${agreementId} order by ${x.position}`,
  )
}

/** What is drawn of an agreement and when it warns, with what is reserved of it. */
export const drawnOn = (row: AgreementRow, reserved: Money): DrawnOn => ({
  ceiling: row.ceiling === null ? null : moneyOf(row.ceiling, row.currency),
  drawn: moneyOf(row.drawn, row.currency),
  reserved,
  warnPercent: row.warnPercent,
  endsOn: row.endsOn,
  warnDays: row.warnDays,
})
