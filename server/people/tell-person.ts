import type { Told } from '#core/told/told'
import type { Context } from '../context'
import { postMail } from '../mail/post-mail'
import { findAddress } from './person-reads'
import { insertNotice } from './store'

/** How something is told besides its words. */
export interface Telling {
  /** Where it leads, below the address of the application. */
  readonly path: string
  /** The mail is not sent before so many seconds; with a decision, until that can no longer be taken back. */
  readonly waitSeconds?: number
  readonly decisionId?: string
  /** False where another mail says it, or none has to. */
  readonly mailed?: boolean
  /** They are told although they did it themselves: it may have been somebody else in their name. */
  readonly ownDoing?: boolean
}

/**
 * Tells a person something, in the application and by e-mail, worded when it is read. Nobody is told of their own
 * doing, but where it may have been another's in their name.
 */
export async function tellPerson(
  { tx, now, actor }: Context,
  personId: string,
  about: { readonly kind: string; readonly id: string },
  told: Told,
  how: Telling,
): Promise<void> {
  const to = personId === actor.id && how.ownDoing !== true ? null : await findAddress(tx, personId)
  if (to === null) return
  const decisionId = how.decisionId ?? null
  await insertNotice(tx, { personId, at: now, told, aboutKind: about.kind, aboutId: about.id, decisionId })
  if (how.mailed === false) return
  await postMail(tx, {
    personId,
    toName: to.name,
    toAddress: to.email,
    told,
    path: how.path,
    aboutKind: about.kind,
    aboutId: about.id,
    decisionId,
    notBefore: new Date(now.getTime() + (how.waitSeconds ?? 0) * 1000),
    now,
  })
}
