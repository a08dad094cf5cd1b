import { and, desc, eq, isNull, lt, ne, sql } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { purchaseOrder } from '../db/schema/order'
import { orderingRule, orderingRun } from '../db/schema/ordering'

export async function insertRule(tx: Tx, row: typeof orderingRule.$inferInsert): Promise<void> {
  await tx.insert(orderingRule).values(row)
}

export async function updateRule(tx: Tx, id: string, change: Partial<typeof orderingRule.$inferInsert>): Promise<void> {
  await tx
    .update(orderingRule)
    .set({ ...change, version: sql`${orderingRule.version} + 1` })
    .where(eq(orderingRule.id, id))
}

/** Notes the day on which it was a rule's time; it is no change of the rule. */
export async function setRanOn(tx: Tx, id: string, day: string): Promise<void> {
  await tx.update(orderingRule).set({ ranOn: day }).where(eq(orderingRule.id, id))
}

export async function insertRun(tx: Tx, row: typeof orderingRun.$inferInsert): Promise<void> {
  await tx.insert(orderingRun).values(row)
}

export async function updateRun(tx: Tx, id: string, change: Partial<typeof orderingRun.$inferInsert>): Promise<void> {
  await tx.update(orderingRun).set(change).where(eq(orderingRun.id, id))
}

export async function deleteRun(tx: Tx, id: string): Promise<void> {
  await tx.delete(orderingRun).where(eq(orderingRun.id, id))
}

/** The run of a rule that ended last before another. */
export async function findRunBefore(tx: Tx, ruleId: string, runId: string) {
  const [found] = await tx
    .select()
    .from(orderingRun)
    .where(and(eq(orderingRun.ruleId, ruleId), ne(orderingRun.id, runId)))
    .orderBy(desc(orderingRun.lastAt), desc(orderingRun.id))
    .limit(1)
  return found ?? null
}

/** Ends what began before a moment and never came to its end, since its server died. */
export async function endLost(tx: Tx, ruleId: string, before: Date, trouble: string): Promise<void> {
  await tx
    .update(orderingRun)
    .set({ endedAt: before, trouble })
    .where(and(eq(orderingRun.ruleId, ruleId), isNull(orderingRun.endedAt), lt(orderingRun.beganAt, before)))
}

/** Notes by which run and rule an order is made, and counts it there. */
export async function setMadeBy(tx: Tx, orderId: string, runId: string, rule: string): Promise<void> {
  await tx.update(purchaseOrder).set({ runId, rule }).where(eq(purchaseOrder.id, orderId))
  await tx
    .update(orderingRun)
    .set({ made: sql`${orderingRun.made} + 1` })
    .where(eq(orderingRun.id, runId))
}

/** How many orders a run made so far. */
export async function countMade(tx: Tx, runId: string): Promise<number> {
  const [found] = await tx.select({ made: orderingRun.made }).from(orderingRun).where(eq(orderingRun.id, runId))
  return found?.made ?? 0
}
