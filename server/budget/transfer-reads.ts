import { sql } from 'drizzle-orm'
import type { TransferLine, TransferState } from '#core/budget/transfer'
import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import type { Tx } from '../db/client'
import { SECONDS } from '../db/moments'
import { named, read, readOne } from '../db/read'
import { budgetLine, budgetTransfer } from '../db/schema/budget'
import { person } from '../db/schema/people'

const t = named(budgetTransfer, 't')
const b = named(budgetLine, 'b')
const g = named(budgetLine, 'g')
const p = named(person, 'p')
const d = named(person, 'd')
const w = named(person, 'w')

/** Budget lines as transfers know them: a holder who has left by a day holds nothing. */
export function listTransferLines(tx: Tx, ids: readonly string[], today: Day): Promise<TransferLine[]> {
  return read(
    tx,
    {
      id: b.id,
      name: b.name,
      fiscalYear: b.fiscalYear,
      retired: b.retired,
      holderId: sql<string | null>`case when ${p.leftOn} < ${today} then null else ${b.holderId} end`,
    },
    sql`from ${b} left join ${p} on ${p.id} = ${b.holderId} where ${b.id} = any(${sql.param([...ids])}::uuid[])`,
  )
}

export interface TransferRow {
  id: string
  fromLineId: string | null
  from: string | null
  toLineId: string
  to: string
  period: number
  amount: DecimalText
  reason: string
  state: TransferState
  proposedById: string
  proposedBy: string
  proposedAt: string
  deciderId: string | null
  decider: string | null
  decidedBy: string | null
  decidedAt: string | null
  comment: string
}
const ROW = {
  id: t.id,
  fromLineId: t.fromLineId,
  from: sql<string | null>`${g.name}`,
  toLineId: t.toLineId,
  to: b.name,
  period: t.period,
  amount: t.amount,
  reason: t.reason,
  state: t.state,
  proposedById: t.proposedById,
  proposedBy: p.name,
  proposedAt: SECONDS(t.proposedAt),
  deciderId: t.deciderId,
  decider: sql<string | null>`${d.name}`,
  decidedBy: sql<string | null>`${w.name}`,
  decidedAt: sql<string | null>`${SECONDS(t.decidedAt)}`,
  comment: t.comment,
}
const FROM = sql`from ${t} join ${b} on ${b.id} = ${t.toLineId} join ${p} on ${p.id} = ${t.proposedById}
  left join ${g} on ${g.id} = ${t.fromLineId} left join ${d} on ${d.id} = ${t.deciderId}
  left join ${w} on ${w.id} = ${t.decidedById}`

/** Transfers of a year that wait, the oldest first, then those that ended, the newest first. */
export const listTransfers = (
  tx: Tx,
  fiscalYear: number,
  of: { readonly lineIds: readonly string[]; readonly personId: string; readonly all: boolean },
): Promise<TransferRow[]> =>
  read(
    tx,
    ROW,
    sql`${FROM} where ${b.fiscalYear} = ${fiscalYear} and (${of.all} or ${t.proposedById} = ${of.personId}
      or ${t.deciderId} = ${of.personId} or ${t.toLineId} = any(${sql.param([...of.lineIds])}::uuid[])
      or ${t.fromLineId} = any(${sql.param([...of.lineIds])}::uuid[]))
      order by ${t.state} <> 'proposed', case when ${t.state} = 'proposed' then ${t.proposedAt} end,
        ${t.decidedAt} desc, ${t.id} limit 200`,
  )

/** One transfer, locked. */
export const lockTransfer = (tx: Tx, id: string): Promise<TransferRow | null> =>
  readOne(tx, ROW, sql`${FROM} where ${t.id} = ${id} for update of t`)
