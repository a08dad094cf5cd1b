import { sql } from 'drizzle-orm'
import type { SetUpCounts } from '#core/lists/set-up'
import type { Tx } from '../db/client'
import { readOne } from '../db/read'
import { account, budgetLine } from '../db/schema/budget'
import { holdsRole, limitOn } from '../people/grant-reads'
import { department, person, shipTo } from '../db/schema/people'
import { supplier } from '../db/schema/supplier'

/** What there is of what the first request and the first order need, in a fiscal year and on a day. */
export async function countSetUp(tx: Tx, fiscalYear: number, today: string): Promise<SetUpCounts> {
  const here = sql`(${person.leftOn} is null or ${person.leftOn} >= ${today})`
  const found = await readOne(
    tx,
    {
      places: sql<number>`(select count(*)::int from ${shipTo} where not ${shipTo.isOnce} and not ${shipTo.retired})`,
      departments: sql<number>`(select count(*)::int from ${department} where not ${department.retired})`,
      accounts: sql<number>`(select count(*)::int from ${account} where not ${account.retired})`,
      budgetLines: sql<number>`(select count(*)::int from ${budgetLine}
        where ${budgetLine.fiscalYear} = ${fiscalYear} and not ${budgetLine.retired})`,
      people: sql<number>`(select count(*)::int from ${person} where ${here})`,
      uninvited: sql<number>`(select count(*)::int from ${person} where ${here} and ${person.passwordHash} is null)`,
      suppliers: sql<number>`(select count(*)::int from ${supplier} where ${supplier.standing} = 'active')`,
      reached: sql<number>`(select count(*)::int from ${supplier}
        where ${supplier.standing} = 'active' and ${supplier.email} is not null)`,
      buyers: sql<number>`(select count(*)::int from ${person}
        where ${here} and ${holdsRole(person, 'buyer', today)} and ${limitOn(person, 'ordering', today)} > 0)`,
    },
    sql`from (select 1) one`,
  )
  if (found === null) throw new Error('nothing was counted')
  return found
}
