import { type Context } from '../context'
import { tellPerson } from '../people/tell-person'
import { type RequisitionRow } from './reads'

/** Seconds for which a decision may be taken back, and its mail waits. */
export const TAKE_BACK_SECONDS = 10

/** Tells a person something about a requisition; with a decision, the mail waits until that can no longer be taken back. */
export async function tell(
  ctx: Context,
  personId: string,
  requisition: Pick<RequisitionRow, 'id'>,
  message: {
    readonly subject: string
    readonly sentence: string
    readonly path?: string
    readonly decisionId?: string
  },
): Promise<void> {
  const waitSeconds = message.decisionId === undefined ? 0 : TAKE_BACK_SECONDS
  await tellPerson(
    ctx,
    personId,
    { kind: 'requisition', id: requisition.id },
    { path: `/trail/${requisition.id}`, ...message, waitSeconds },
  )
}
