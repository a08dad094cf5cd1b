import type { Context } from '../context'
import type { Db, Tx } from '../db/client'
import { inTransaction } from '../db/transaction'
import { tell } from '../document/tell'
import { Problem } from '../http/problem'
import { REKKO } from '../people/actor'
import { findActor } from '../people/actor-reads'
import type { TaskData } from '../queue/tasks'
import { isApprovedBy } from './buyers-document'
import { findChange } from './change-reads'
import { makeApproved } from './make-approved'
import { findOrder } from './reads'

/**
 * Puts a change in force, once it is approved and nobody can take that back any more. Where something stands in its way
 * by then it stays, and the buyer hears what. Repeated, it is made once.
 */
export async function putChangeInForce(
  db: Db,
  { changeId, ...decided }: TaskData['put-change-in-force'],
  now: Date,
): Promise<void> {
  const kept = await findChange(db, changeId)
  if (kept === null || !(await isApprovedBy(db, kept, decided))) return
  const buyer = await findActor(db, kept.ownerId, now)
  if (buyer === null) return
  const order = await findOrder(db, kept.orderId)
  const [number, supplier] = [order?.number ?? '', order?.supplier ?? '']
  const path = `/orders/${kept.orderId}`
  const by = (tx: Tx): Context => ({ tx, now, actor: buyer })
  try {
    await inTransaction(db, async (tx) => {
      const { revision } = await makeApproved(by(tx), changeId)
      const told = { code: 'change-made', number, supplier, revision } as const
      await tell({ tx, now, actor: REKKO }, buyer.id, kept, told, { path })
    })
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    const told = { code: 'change-not-made', number, supplier, why: error.detail } as const
    await inTransaction(db, (tx) => tell({ tx, now, actor: REKKO }, buyer.id, kept, told, { path }))
  }
}
