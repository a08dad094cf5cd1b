import { sql } from 'drizzle-orm'
import type { YearEndChoice } from '#core/budget/year-end'
import type { Tx } from '../db/client'
import { bare, named } from '../db/read'
import { openingBalance, yearEndRun } from '../db/schema/budget'
import { requisition, requisitionCoding, requisitionLine } from '../db/schema/requisition'

const c = named(requisitionCoding, 'c')
const l = named(requisitionLine, 'l')
const r = named(requisition, 'r')
const w = named(openingBalance, 'w')

/** A budget line that ends, and what becomes of what is open of it. */
export interface Ending {
  readonly lineId: string
  readonly choice: YearEndChoice
  readonly nextId: string | null
}

/** The codings of requisitions pay from the line they were carried to from now on, or reserve nothing more. */
export async function endCodings(
  tx: Tx,
  requisitionIds: readonly string[],
  endings: readonly Ending[],
  period: number,
): Promise<void> {
  const flat = JSON.stringify(
    endings.map((e) => ({ l: e.lineId, n: e.choice === 'carry' ? e.nextId : e.lineId, k: e.choice === 'carry' })),
  )
  await tx.execute(sql`
    update ${c} set ${bare(c.budgetLineId)} = f.n,
      ${bare(c.carriedTo)} = case when f.k then ${period} else ${c.carriedTo} end,
      ${bare(c.released)} = ${c.released} or not f.k
    from ${l}, json_to_recordset(${flat}::json) as f(l uuid, n uuid, k boolean)
    where ${l.id} = ${c.lineId} and ${l.requisitionId} = any(${sql.param([...requisitionIds])}::uuid[])
      and ${c.budgetLineId} = f.l`)
  // As it was sent, it names the line too: being carried is no change that its author made.
  for (const { lineId, nextId } of endings.filter((e) => e.choice === 'carry'))
    await tx.execute(sql`
      update ${r} set ${bare(r.sentDraft)} = replace(${r.sentDraft}::text, ${lineId}, ${nextId})::jsonb,
        ${bare(r.earlierDraft)} = replace(${r.earlierDraft}::text, ${lineId}, ${nextId})::jsonb
      where ${r.id} = any(${sql.param([...requisitionIds])}::uuid[])
        and position(${lineId} in ${r.sentDraft}::text) > 0`)
}

/** What was from before Rekko stands in the list of the year that it was carried to; what was released is over. */
export async function endOpening(
  tx: Tx,
  ids: readonly string[],
  endings: readonly Ending[],
  period: number,
): Promise<void> {
  const flat = JSON.stringify(endings.map((e) => ({ l: e.lineId, n: e.nextId, k: e.choice === 'carry' })))
  await tx.execute(sql`
    update ${w} set ${bare(w.budgetLineId)} = case when f.k then f.n else ${w.budgetLineId} end,
      ${bare(w.period)} = case when f.k then ${period} else ${w.period} end,
      ${bare(w.isOver)} = not f.k
    from json_to_recordset(${flat}::json) as f(l uuid, n uuid, k boolean)
    where ${w.id} = any(${sql.param([...ids])}::uuid[]) and ${w.budgetLineId} = f.l`)
}

export async function insertRun(tx: Tx, run: typeof yearEndRun.$inferInsert): Promise<void> {
  await tx.insert(yearEndRun).values(run)
}
