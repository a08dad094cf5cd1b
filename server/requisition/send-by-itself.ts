import type { Missing } from '#core/requisition/missing'
import type { Context } from '../context'
import type { Db, Tx } from '../db/client'
import { inTransaction } from '../db/transaction'
import { tell } from '../document/tell'
import { Problem } from '../http/problem'
import { REKKO } from '../people/actor'
import { findActor } from '../people/actor-reads'
import { REQUISITION } from './kind'
import { findRequisition } from './reads'
import { sendRequisition } from './send-requisition'

/** Why a request is sent without anybody pressing: the rhythm of a template, or parts that were added to a job. */
export type Cause = 'rhythm' | 'parts'
const SENT = { rhythm: 'repeated-sent', parts: 'parts-sent' } as const
const HELD = { rhythm: 'repeated-held', parts: 'parts-held' } as const

/** Sends a draft that wrote itself, as its owner; where something is missing it stays a draft, and they hear what. */
export async function sendByItself(db: Db, requisitionId: string, cause: Cause, now: Date): Promise<void> {
  const kept = await findRequisition(db, requisitionId)
  const owner = kept === null || kept.state !== 'draft' ? null : await findActor(db, kept.ownerId, now)
  if (kept === null || owner === null) return
  const as = (tx: Tx): Context => ({ tx, now, actor: owner })
  try {
    await inTransaction(db, async (tx) => {
      const sent = await sendRequisition(as(tx), requisitionId, kept.version)
      const told = { code: SENT[cause], number: sent.number, title: kept.title } as const
      await tell({ tx, now, actor: REKKO }, owner.id, kept, told, { path: REQUISITION.path(kept.id) })
    })
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    const missing = (error.more.missing ?? []) as readonly Missing[]
    await inTransaction(db, (tx) =>
      tell(
        { tx, now, actor: REKKO },
        owner.id,
        kept,
        { code: HELD[cause], title: kept.title, missing },
        { path: REQUISITION.changePath(kept.id) },
      ),
    )
  }
}
