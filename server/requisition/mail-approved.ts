import { moneyOf } from '#core/base/money'
import { findRoute, listDecisions } from '../approval/reads'
import type { Db, Tx } from '../db/client'
import { inTransaction } from '../db/transaction'
import { environment } from '../environment'
import { keepFile } from '../files/store'
import { inWorkshop } from '../files/workshop'
import { wasMailed } from '../mail/reads'
import { postMails } from '../mail/post-mail'
import { findActor } from '../people/actor-reads'
import { findAddresses } from '../people/person-reads'
import { requireOrganisation } from '../settings/reads'
import { changesOf } from './change-lines'
import { findRequisition } from './reads'
import { readRequisitionPaper } from './requisition-paper'

const APPROVED = ['approved', 'part ordered', 'ordered', 'closed']

interface Asked {
  readonly requisitionId: string
  readonly decisionId: string | null
}

/**
 * Mails the owner of a requisition that it is approved, with its PDF: after the last decision can no longer be taken
 * back, or at once where it passed within their own limit. Repeated, it mails once. Nothing is locked while the PDF is
 * made.
 */
export async function mailApproved(db: Db, asked: Asked, now: Date): Promise<void> {
  const read = await inTransaction(db, async (tx) => {
    const due = await findDue(tx, asked, now)
    return due === null ? null : readRequisitionPaper({ tx, now, actor: due.owner }, due.kept.id)
  })
  if (read === null) return
  const pdf = await inWorkshop('make-pdf', read.paper, environment().root)
  await inTransaction(db, async (tx) => {
    const due = await findDue(tx, asked, now)
    if (due === null) return
    const { kept, owner, to, decision } = due
    // Whoever has it come with others, or not at all, has it told beneath their name.
    if (to.news !== 'at once') return
    const route = await findRoute(tx, kept.id)
    const { baseCurrency } = await requireOrganisation(tx)
    await postMails(tx, [
      {
        personId: owner.id,
        toName: to.name,
        toAddress: to.email,
        told: {
          code: 'approved',
          by: decision?.actor ?? null,
          ownLimit: route?.route.notes.some((n) => n.code === 'spared-by-own-limit') ?? false,
          comment: decision?.comment ?? '',
          changes: changesOf(decision?.changedFrom, kept.draft),
          amount: moneyOf(kept.amount ?? '0', baseCurrency),
          number: kept.number,
          title: kept.draft.title,
        },
        path: `/trail/${kept.id}`,
        attachments: [{ hash: await keepFile(tx, pdf, 'application/pdf', now), name: read.name }],
        aboutKind: 'requisition',
        aboutId: kept.id,
        decisionId: asked.decisionId,
        notBefore: now,
        now,
      },
    ])
  })
}

/** The requisition, locked, with its owner and the last decision; null where there is nothing to mail any more. */
async function findDue(tx: Tx, { requisitionId, decisionId }: Asked, now: Date) {
  const kept = await findRequisition(tx, requisitionId, true)
  if (kept?.sentAt == null || !APPROVED.includes(kept.state)) return null
  const decision = (await listDecisions(tx, kept.id)).find((d) => d.id === decisionId)
  if (decision?.takenBack === true) return null
  const owner = await findActor(tx, kept.ownerId, now)
  const to = (await findAddresses(tx, [kept.ownerId])).get(kept.ownerId)
  if (owner === null || to === undefined) return null
  if (await wasMailed(tx, { aboutId: kept.id, code: 'approved', decisionId, since: kept.sentAt })) return null
  return { kept, owner, to, decision }
}
