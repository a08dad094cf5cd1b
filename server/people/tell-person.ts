import { mailWay } from '#core/told/mail-sort'
import type { Told } from '#core/told/told'
import type { Context } from '../context'
import { postMails } from '../mail/post-mail'
import { findAddresses } from './person-reads'
import { insertNotices } from './store'

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

/** What somebody is told of something. */
export interface Tale extends Telling {
  readonly personId: string
  readonly about: { readonly kind: string; readonly id: string }
  readonly told: Told
}

/**
 * Tells a person something, in the application and by e-mail, worded when it is read. Nobody is told of their own
 * doing, but where it may have been another's in their name.
 */
export async function tellPerson(
  ctx: Context,
  personId: string,
  about: Tale['about'],
  told: Told,
  how: Telling,
): Promise<void> {
  await tellPeople(ctx, [{ personId, about, told, ...how }])
}

/** Tells several, each what is theirs, in statements that do not grow with how many they are. */
export async function tellPeople({ tx, now, actor }: Context, tales: readonly Tale[]): Promise<void> {
  const others = tales.filter((t) => t.personId !== actor.id || t.ownDoing === true)
  if (others.length === 0) return
  const addresses = await findAddresses(tx, [...new Set(others.map((t) => t.personId))])
  const reached = others.flatMap((t) => {
    const to = addresses.get(t.personId)
    return to === undefined ? [] : [{ ...t, to, decisionId: t.decisionId ?? null }]
  })
  await insertNotices(
    tx,
    reached.map(({ personId, told, about, decisionId }) => ({
      personId,
      at: now,
      told,
      aboutKind: about.kind,
      aboutId: about.id,
      decisionId,
    })),
  )
  await postMails(
    tx,
    reached
      .filter((t) => t.mailed !== false && mailWay(t.told, t.to) === 'at once')
      .map(({ personId, to, told, path, about, decisionId, waitSeconds }) => ({
        personId,
        toName: to.name,
        toAddress: to.email,
        told,
        path,
        aboutKind: about.kind,
        aboutId: about.id,
        decisionId,
        notBefore: new Date(now.getTime() + (waitSeconds ?? 0) * 1000),
        now,
      })),
  )
}
