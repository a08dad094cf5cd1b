import { type Context } from '../context'
import { environment } from '../environment'
import { postMail } from '../mail/post-mail'
import { type NewMail } from '../mail/store'
import { findAddress } from './reads'
import { insertNotice } from './store'

export interface Message {
  readonly subject: string
  readonly sentence: string
  /** Where it leads, below the address of the application. */
  readonly path: string
  /** The mail is not sent before so many seconds; with a decision, until that can no longer be taken back. */
  readonly waitSeconds?: number
  readonly decisionId?: string
}

/** Tells a person something, in the application and by e-mail. Nobody is told of their own doing. */
export async function tellPerson(
  { tx, now, actor }: Context,
  personId: string,
  about: { readonly kind: NewMail['aboutKind']; readonly id: string },
  message: Message,
): Promise<void> {
  const to = personId === actor.id ? null : await findAddress(tx, personId)
  if (to === null) return
  await insertNotice(tx, { personId, at: now, sentence: message.sentence, aboutKind: about.kind, aboutId: about.id })
  await postMail(tx, {
    toName: to.name,
    toAddress: to.email,
    subject: message.subject,
    body: `${message.sentence}\n\n${environment().publicUrl}${message.path}\n`,
    aboutKind: about.kind,
    aboutId: about.id,
    decisionId: message.decisionId ?? null,
    notBefore: new Date(now.getTime() + (message.waitSeconds ?? 0) * 1000),
    now,
  })
}
