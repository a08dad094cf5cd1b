import { dec, type DecimalText } from '#core/base/decimal'
import { isInPart, may, partOf } from '#core/people/rights'
import { leftToLay } from '#core/requisition/line-progress'
import { checkMove } from '#core/requisition/moves'
import { sayMoveReason } from '#shared/words/requisition'
import type { Context } from '../context'
import { invalid, notFound, refused } from '../http/problem'
import { findRequisitions, type RequisitionLineRow, type RequisitionRow } from '../requisition/reads'
import { findRequisitionsOfLines } from './tray-reads'

/** A line of the Desk with what is open of it, not on a tray, ordered or cancelled. */
export interface OpenOnDesk {
  readonly requisition: RequisitionRow
  readonly line: RequisitionLineRow
  readonly open: DecimalText
}

/** Locks the requisitions of lines that wait in the actor's part; refused where one is not to be had any more. */
export async function lockOpenLines(ctx: Context, lineIds: readonly string[]): Promise<OpenOnDesk[]> {
  if (new Set(lineIds).size !== lineIds.length) throw invalid('A line is named twice.')
  const owners = await findRequisitionsOfLines(ctx.tx, lineIds)
  const theirs = partOf(ctx.actor.grants, 'order')
  const found: OpenOnDesk[] = []
  for (const requisition of await findRequisitions(ctx.tx, [...new Set(owners.values())], true)) {
    if (requisition.isDirect || !isInPart(theirs, requisition.draft)) throw notFound('A line')
    const by = { isOwner: false, isStepHolder: false, isBuyer: may(ctx.actor.grants, 'order') }
    const [reason] = checkMove('order', requisition, by)
    if (reason !== undefined)
      throw refused([`${requisition.number ?? ''}: ${sayMoveReason(reason)}`], {}, 'wrong-state')
    for (const id of lineIds.filter((l) => owners.get(l) === requisition.id)) {
      const line = requisition.lines.find((l) => l.id === id)
      if (line === undefined) throw notFound('A line')
      const open = leftToLay({ ...line, requested: line.quantity })
      if (!dec(open).isPositive())
        throw refused([`“${line.description}” lies on a tray or is ordered already.`], {}, 'taken')
      found.push({ requisition, line, open })
    }
  }
  if (found.length !== lineIds.length) throw notFound('A line')
  return found
}
