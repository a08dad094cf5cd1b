import { and, eq, sql } from 'drizzle-orm'
import type { Money } from '#core/base/money'
import type { Tx } from '../db/client'
import { budgetBalance, budgetTransfer } from '../db/schema/budget'

export async function insertTransfer(tx: Tx, t: typeof budgetTransfer.$inferInsert): Promise<void> {
  await tx.insert(budgetTransfer).values(t)
}

/** What became of a transfer that was proposed; false where it is no longer. */
export async function endTransfer(
  tx: Tx,
  id: string,
  as: Pick<typeof budgetTransfer.$inferInsert, 'state' | 'decidedById' | 'decidedAt' | 'comment'>,
): Promise<boolean> {
  const changed = await tx
    .update(budgetTransfer)
    .set(as)
    .where(and(eq(budgetTransfer.id, id), eq(budgetTransfer.state, 'proposed')))
    .returning({ id: budgetTransfer.id })
  return changed.length > 0
}

/** Adds to what a budget line was given in a period besides its plan. The line is locked. */
export async function addAdjustment(tx: Tx, budgetLineId: string, period: number, by: Money): Promise<void> {
  await tx
    .update(budgetBalance)
    .set({ adjustments: sql`${budgetBalance.adjustments} + ${by.amount}::numeric` })
    .where(and(eq(budgetBalance.budgetLineId, budgetLineId), eq(budgetBalance.period, period)))
}
