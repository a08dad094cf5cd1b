import type { Context } from '../context'
import type { Db, Tx } from '../db/client'
import { inTransaction } from '../db/transaction'
import { tell } from '../document/tell'
import { Problem } from '../http/problem'
import { REKKO } from '../people/actor'
import { findActor } from '../people/actor-reads'
import type { TaskData } from '../queue/tasks'
import { isApprovedBy } from './buyers-document'
import { issueOrder } from './issue-order'
import { findOrder } from './reads'

/**
 * Issues an order as its buyer, once it is approved and nobody can take that back any more, where that was wished when
 * it was sent. Where something stands in its way by then it stays, and the buyer hears what. Repeated, it issues once.
 */
export async function issueApproved(
  db: Db,
  { orderId, ...decided }: TaskData['issue-approved'],
  now: Date,
): Promise<void> {
  const kept = await findOrder(db, orderId)
  if (kept?.issuesItself !== true || !(await isApprovedBy(db, kept, decided))) return
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
