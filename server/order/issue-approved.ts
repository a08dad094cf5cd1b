import { findRoute, listDecisions } from '../approval/reads'
import type { Context } from '../context'
import type { Db, Tx } from '../db/client'
import { inTransaction } from '../db/transaction'
import { tell } from '../document/tell'
import { Problem } from '../http/problem'
import { REKKO } from '../people/actor'
import { findActor } from '../people/actor-reads'
import type { TaskData } from '../queue/tasks'
import { issueOrder } from './issue-order'
import { findOrder } from './reads'

/**
 * Issues an order as its buyer, once it is approved and nobody can take that back any more, where that was wished when
 * it was sent. Where something stands in its way by then it stays, and the buyer hears what. Repeated, it issues once.
 */
export async function issueApproved(
  db: Db,
  { orderId, round, decisionId }: TaskData['issue-approved'],
  now: Date,
): Promise<void> {
  const kept = await findOrder(db, orderId)
  if (kept?.state !== 'approved' || !kept.issuesItself || (await findRoute(db, orderId))?.round !== round) return
  // Approved once more after that was taken back, another task follows it.
  const decision = (await listDecisions(db, orderId)).find((d) => d.id === decisionId)
  if (decision?.takenBack === true) return
  const buyer = await findActor(db, kept.ownerId, now)
  if (buyer === null) return
  const as = (tx: Tx): Context => ({ tx, now, actor: buyer })
  try {
    await inTransaction(db, async (tx) => {
      const { number } = await issueOrder(as(tx), orderId, kept.version)
      const told = { code: 'order-issued-itself', number, supplier: kept.supplier } as const
      await tell({ tx, now, actor: REKKO }, buyer.id, kept, told, { path: `/orders/${orderId}` })
    })
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    const told = { code: 'order-not-issued', supplier: kept.supplier, why: error.detail } as const
    await inTransaction(db, (tx) => tell({ tx, now, actor: REKKO }, buyer.id, kept, told, { path: '/desk' }))
  }
}
