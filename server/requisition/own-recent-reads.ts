import { sql } from 'drizzle-orm'
import { addDays, type Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import { moneyOf } from '#core/base/money'
import type { OwnRecent } from '#core/requisition/draft-facts'
import type { Tx } from '../db/client'
import { named, read, sure } from '../db/read'
import { requisitionLine } from '../db/schema/requisition'
import { requisitions } from './visible'

const r = requisitions('r')
const l = named(requisitionLine, 'l')

/**
 * The requests of an owner, besides this one, that were sent within so many days, today's included, and stand: whom
 * they name and their amounts. None where the policy looks at each by itself.
 */
export async function listOwnRecent(
  tx: Tx,
  of: { readonly id: string | null; readonly ownerId: string; readonly raisedById: string },
  days: number | null,
  organisation: { readonly timeZone: string; readonly baseCurrency: string },
  today: Day,
): Promise<OwnRecent[]> {
  // What somebody else raised is spared by no own limit.
  if (days === null || of.ownerId !== of.raisedById) return []
  const { timeZone, baseCurrency } = organisation
  const found = await read(
    tx,
    {
      amount: sure(r.amount),
      supplierIds: sql<string[]>`array(select distinct ${l.supplierId} from ${l}
        where ${l.requisitionId} = ${r.id} and ${l.supplierId} is not null)`,
    },
    sql`from ${r} where ${r.ownerId} = ${of.ownerId} and ${r.id} is distinct from ${of.id}::uuid
      and ${r.state} in ('in approval', 'approved', 'part ordered', 'ordered', 'closed') and ${r.amount} is not null
      and (${r.sentAt} at time zone ${timeZone})::date > ${addDays(today, -days)}::date`,
  )
  return found.map(({ amount, supplierIds }: { amount: DecimalText; supplierIds: string[] }) => ({
    supplierIds,
    amount: moneyOf(amount, baseCurrency),
  }))
}
