import { sql } from 'drizzle-orm'
import { type Tx } from '../db/client'
import { rows } from '../db/rows'

/** The requisition of each line. */
export async function findRequisitionsOfLines(tx: Tx, lineIds: readonly string[]): Promise<Map<string, string>> {
  const found = await rows<{ id: string; requisitionId: string }>(
    tx,
    sql`
    select id, requisition_id as "requisitionId" from requisition_line where id = any(${sql.param(lineIds as string[])}::uuid[])`,
  )
  return new Map(found.map((f) => [f.id, f.requisitionId]))
}

/** How many lines wait on the Desk in all. */
export async function countDeskLines(tx: Tx, departments: 'all' | readonly string[]): Promise<number> {
  const part = departments === 'all' ? sql`` : sql`and r.department_id = any(${sql.param([...departments])}::uuid[])`
  const [found] = await rows<{ n: number }>(
    tx,
    sql`
    select count(*)::int as n from requisition r join requisition_line l on l.requisition_id = r.id
    where r.state in ('approved', 'part ordered') ${part} and l.quantity - l.ordered - l.cancelled - l.on_tray > 0`,
  )
  return found?.n ?? 0
}
