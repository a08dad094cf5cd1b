import { actsAsOwner, REQUISITION_MOVES, type RequisitionState } from '#core/requisition/moves'
import type { RequisitionView } from '#shared/contract/requisition'
import type { Context } from '../context'
import { listAttachments, listRemarks, viewAttachment } from '../document/reads'
import { maySee } from '../document/visible'
import { notFound } from '../http/problem'
import { readLineSuppliers, readNames, readPeopleNames } from './page-reads'
import { findRequisition } from './reads'
import { SEEN_REQUISITIONS } from './visible'

/** A requisition as it was written, for Raise. */
export async function readRequisition(ctx: Context, id: string): Promise<RequisitionView> {
  const { tx, actor } = ctx
  const kept = await findRequisition(tx, id)
  if (kept === null || !(await maySee(ctx, SEEN_REQUISITIONS, id))) throw notFound('This requisition')
  const names = await readNames(tx, id)
  const editable: readonly RequisitionState[] = REQUISITION_MOVES.edit.from
  return {
    id,
    number: kept.number,
    version: kept.version,
    state: kept.state,
    ownerId: kept.ownerId,
    owner: names?.owner ?? '',
    raisedById: kept.raisedById,
    changedAt: kept.changedAt,
    draft: {
      ...kept.draft,
      readWarnings: [...kept.draft.readWarnings],
      lines: kept.draft.lines.map((l) => ({ ...l, codings: [...l.codings] })),
    },
    attachments: (await listAttachments(tx, id)).map(viewAttachment),
    remarks: await listRemarks(tx, id),
    suppliers: await readLineSuppliers(tx, id),
    // Whoever own fields name; ids of anything else are nobody's.
    names: await readPeopleNames(
      tx,
      [kept.draft.own, ...kept.draft.lines.map((l) => l.own)].flatMap((own) => Object.values(own)),
    ),
    mayEdit: actsAsOwner(kept, actor.id) && editable.includes(kept.state),
  }
}
