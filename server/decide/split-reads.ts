import { sql } from 'drizzle-orm'
import type { SplitRequest } from '#core/approval/splits'
import { addDays, type Day } from '#core/base/day'
import { moneyOf } from '#core/base/money'
import type { Tx } from '../db/client'
import { named, read, sure } from '../db/read'
import { category } from '../db/schema/catalogue'
import { requisitionLine } from '../db/schema/requisition'
import { supplier } from '../db/schema/supplier'
import { requisitions } from '../requisition/visible'

const r = requisitions('r')
const l = named(requisitionLine, 'l')
const s = named(supplier, 's')
const c = named(category, 'c')

/** Of two thousand near ones the first say enough. */
const MOST = 2000

export interface NearRequest extends SplitRequest {
  readonly number: string
  readonly title: string
}

/** Requests of an owner or a department that stand and were sent within so many days of a day, this one included. */
export async function listNear(
  tx: Tx,
  of: { readonly ownerId: string; readonly departmentId: string; readonly day: Day; readonly days: number },
  organisation: { readonly timeZone: string; readonly baseCurrency: string },
): Promise<NearRequest[]> {
  const { timeZone, baseCurrency } = organisation
  const sentOn = sql<Day>`(${r.sentAt} at time zone ${timeZone})::date`
  const found = await read(
    tx,
    {
      id: r.id,
      number: sure(r.number),
      title: r.title,
      ownerId: r.ownerId,
      departmentId: sure(r.departmentId),
      amount: sure(r.amount),
      sentOn: sql<Day>`${sentOn}::text`,
      supplierIds: sql<string[]>`array(select distinct ${l.supplierId} from ${l}
        where ${l.requisitionId} = ${r.id} and ${l.supplierId} is not null)`,
      categoryIds: sql<string[]>`array(select distinct ${l.categoryId} from ${l}
        where ${l.requisitionId} = ${r.id} and ${l.categoryId} is not null)`,
    },
    sql`from ${r} where (${r.ownerId} = ${of.ownerId} or ${r.departmentId} = ${of.departmentId})
      and ${r.state} in ('in approval', 'approved', 'part ordered', 'ordered', 'closed') and ${r.amount} is not null
      and ${sentOn} between ${addDays(of.day, 1 - of.days)}::date and ${addDays(of.day, of.days - 1)}::date
      order by ${r.sentAt}, ${r.number} limit ${MOST}`,
  )
  return found.map((f) => ({ ...f, amount: moneyOf(f.amount, baseCurrency) }))
}

/** What a supplier or a category is called. */
export async function nameShared(tx: Tx, what: 'supplier' | 'category', id: string): Promise<string> {
  const [row] =
    what === 'supplier'
      ? await read(tx, { name: s.name }, sql`from ${s} where ${s.id} = ${id}`)
      : await read(tx, { name: c.name }, sql`from ${c} where ${c.id} = ${id}`)
  return row?.name ?? ''
}
