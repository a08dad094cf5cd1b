import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { Tx } from '../db/client'
import { named, read, readOne } from '../db/read'
import { approvalPolicy } from '../db/schema/approval'
import { account, budgetLine } from '../db/schema/budget'
import { department, departmentMember, person } from '../db/schema/people'

const y = named(approvalPolicy, 'y')
const b = named(budgetLine, 'b')
const a = named(account, 'a')
const d = named(department, 'd')
const dm = named(departmentMember, 'dm')
const p = named(person, 'p')

/** What the policy in force on a day is called, and since when. */
export const findPolicyName = (tx: Tx, id: string): Promise<{ name: string; inForceFrom: Day } | null> =>
  readOne(tx, { name: y.name, inForceFrom: y.inForceFrom }, sql`from ${y} where ${y.id} = ${id}`)

/** Everybody, and the departments open to them: their own, and those besides. */
export const listOpenTo = (tx: Tx): Promise<{ personId: string; departmentIds: string[] }[]> =>
  read(
    tx,
    {
      personId: p.id,
      departmentIds: sql<
        string[]
      >`array(select ${d.id} from ${d} where not ${d.retired} and (${d.id} = ${p.departmentId}
        or ${d.id} in (select ${dm.departmentId} from ${dm} where ${dm.personId} = ${p.id})) order by ${d.name})`,
    },
    sql`from ${p} order by ${p.name}, ${p.id}`,
  )

/** Every department with the one above it, retired ones too: they may stand between two that are not. */
export const listUpward = (
  tx: Tx,
): Promise<{ id: string; name: string; parentId: string | null; retired: boolean }[]> =>
  read(
    tx,
    { id: d.id, name: d.name, parentId: d.parentId, retired: d.retired },
    sql`from ${d} order by ${d.name}, ${d.id}`,
  )

/** The budget lines of a fiscal year that may pay, without their money. */
export const listCodings = (tx: Tx, year: number) =>
  read(
    tx,
    {
      id: b.id,
      name: b.name,
      departmentId: b.departmentId,
      account: b.accountCode,
      accountName: a.name,
      holderId: b.holderId,
    },
    sql`from ${b} join ${a} on ${a.code} = ${b.accountCode}
      where ${b.fiscalYear} = ${year} and not ${b.retired} order by ${b.departmentId}, ${b.accountCode}, ${b.name}`,
  )
