import type { LeftView } from '#shared/contract/ordering'
import { sayItselfReason } from '#shared/words/ordering'
import { waysOf } from '#shared/words/ways'
import type { Context } from '../context'
import type { RunLeft } from '../db/schema/ordering'
import { listLeftLines } from './reads'

/** Said instead of a reason that may name a line that one does not see. */
const UNSEEN = 'Issuing it was refused. Whoever sees all of its lines reads why.'
const namesLines = ({ reason }: RunLeft): boolean => reason.code === 'refused' || reason.code === 'above-agreed'

/** What was left, by why, the most lines first; of what one may not see, its number and no more. */
export async function viewLeft(ctx: Context, left: readonly RunLeft[], today: string): Promise<LeftView[]> {
  const ways = waysOf(ctx.actor.locale)
  const rows = await listLeftLines(
    ctx.tx,
    left.map((l) => l.lineId),
    ctx,
  )
  const seen = new Set(rows.map((r) => r.lineId))
  const unseen = new Set(
    left.filter((l) => namesLines(l) && !seen.has(l.lineId)).map((l) => sayItselfReason(l.reason, today, ways)),
  )
  const byReason = new Map<string, Set<string>>()
  for (const { lineId, reason } of left) {
    const says = sayItselfReason(reason, today, ways)
    const told = unseen.has(says) ? UNSEEN : says
    byReason.set(told, (byReason.get(told) ?? new Set()).add(lineId))
  }
  return [...byReason]
    .map(([reason, ids]) => ({ reason, count: ids.size, lines: rows.filter((r) => ids.has(r.lineId)) }))
    .sort((a, b) => b.count - a.count)
}
