import { moneyOf } from '#core/base/money'
import { findRoute, listDecisions } from '../approval/reads'
import type { Tx } from '../db/client'
import { keepFile } from '../files/store'
import { wasMailed } from '../mail/reads'
import { postMail } from '../mail/post-mail'
import { findActor } from '../people/actor-reads'
import { findAddress } from '../people/person-reads'
import { requireOrganisation } from '../settings/reads'
import { findRequisition } from './reads'
import { readRequisitionPdf } from './requisition-pdf'

const APPROVED = ['approved', 'part ordered', 'ordered', 'closed']

/**
 * Mails the owner of a requisition that it is approved, with its PDF: after the last decision can no longer be taken
 * back, or at once where it passed within their own limit. Repeated, it mails once.
 */
export async function mailApproved(
  tx: Tx,
  { requisitionId, decisionId }: { readonly requisitionId: string; readonly decisionId: string | null },
  now: Date,
): Promise<void> {
  const kept = await findRequisition(tx, requisitionId, true)
  if (kept?.sentAt == null || !APPROVED.includes(kept.state)) return
  const decision = (await listDecisions(tx, kept.id)).find((d) => d.id === decisionId)
  if (decision?.takenBack === true) return
  const route = await findRoute(tx, kept.id)
  const owner = await findActor(tx, kept.ownerId, now)
  const to = await findAddress(tx, kept.ownerId)
  if (owner === null || to === null) return
  if (await wasMailed(tx, { aboutId: kept.id, code: 'approved', decisionId, since: kept.sentAt })) return
  const { baseCurrency } = await requireOrganisation(tx)
  const pdf = await readRequisitionPdf({ tx, now, actor: owner }, kept.id)
  await postMail(tx, {
    personId: owner.id,
    toName: to.name,
    toAddress: to.email,
    told: {
      code: 'approved',
      by: decision?.actor ?? null,
      ownLimit: route?.route.notes.some((n) => n.code === 'spared-by-own-limit') ?? false,
      comment: decision?.comment ?? '',
      amount: moneyOf(kept.amount ?? '0', baseCurrency),
      number: kept.number,
      title: kept.draft.title,
    },
    path: `/trail/${kept.id}`,
    attachments: [{ hash: await keepFile(tx, pdf.bytes, pdf.mime, now), name: pdf.name }],
    aboutKind: 'requisition',
    aboutId: kept.id,
    decisionId,
    notBefore: now,
    now,
  })
}
