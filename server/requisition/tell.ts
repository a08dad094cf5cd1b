import { environment } from '../environment'
import { type Context } from '../context'
import { postMail } from '../mail/post-mail'
import { findAddress } from '../people/reads'
import { insertNotice } from '../people/store'
import { type RequisitionRow } from './reads'

/** Seconds for which a decision may be taken back, and its mail waits. */
export const TAKE_BACK_SECONDS = 10

/**
 * Tells a person something about a requisition, in the application and by e-mail. Nobody is told of
 * their own doing. With a decision, the mail waits until that can no longer be taken back.
 */
export async function tell(
  { tx, now, actor }: Context, personId: string, requisition: Pick<RequisitionRow, 'id'>,
  message: { readonly subject: string; readonly sentence: string; readonly path?: string; readonly decisionId?: string },
): Promise<void> {
  if (personId === actor.id) return
  const to = await findAddress(tx, personId)
  if (to === null) return
  await insertNotice(tx, { personId, at: now, sentence: message.sentence, aboutKind: 'requisition', aboutId: requisition.id })
  const wait = message.decisionId === undefined ? 0 : TAKE_BACK_SECONDS * 1000
  await postMail(tx, {
    toName: to.name, toAddress: to.email, subject: message.subject,
    body: `${message.sentence}\n\n${environment().publicUrl}${message.path ?? `/trail/${requisition.id}`}\n`,
    aboutKind: 'requisition', aboutId: requisition.id, decisionId: message.decisionId ?? null,
    notBefore: new Date(now.getTime() + wait), now,
  })
}
