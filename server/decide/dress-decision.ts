import { dayOf } from '#core/base/day'
import { mayAnswerByMail } from '#core/approval/policy-form'
import type { Told } from '#core/told/told'
import { sayTold } from '#shared/words/told'
import { waysOf } from '#shared/words/ways'
import { decidePath } from '../approval/decidable'
import { findOpenSeat, findRoute, requireVersion } from '../approval/reads'
import type { Context } from '../context'
import type { Tx } from '../db/client'
import { listAttachments } from '../document/reads'
import { environment } from '../environment'
import { findFile } from '../files/store'
import { inWorkshop } from '../files/workshop'
import { Problem } from '../http/problem'
import type { WaitingMail } from '../mail/reads'
import type { Dressed } from '../mail/send-mail'
import { findActor, isFactorAsked } from '../people/actor-reads'
import { readRequisitionPaper } from '../requisition/requisition-paper'
import { requireOrganisation } from '../settings/reads'
import { answerSecret, insertAnswerKey } from './answer-store'
import { writeDecisionLetter } from './decision-letter'
import { readRequestDecision } from './read-request-decision'

/** What asks its reader for a decision. */
const ASKS: ReadonlySet<Told['code']> = new Set<Told['code']>([
  'to-decide',
  'to-decide-next',
  'to-decide-anew',
  'handed-to-decide',
  'still-waits',
])
/** For so many days a mail may be answered. */
const ANSWERED_DAYS = 14
/** Of quotes no more goes along with a mail; the others are a press away. */
const MOST_BYTES = 8_000_000
const DAY_MS = 86_400_000

/**
 * A mail that asks for a decision says all that the page does, as far as its reader may see it, with the quotes and the
 * request as a PDF; where the policy lets it be answered, by an address of its own. Null for any other mail, and where
 * it no longer waits for its reader.
 */
export async function dressDecision(tx: Tx, mail: WaitingMail, now: Date): Promise<Dressed | null> {
  const { told, personId, aboutKind, aboutId } = mail
  if (!ASKS.has(told.code) || personId === null || aboutKind !== 'requisition') return null
  const actor = await findActor(tx, personId, now)
  if (actor === null || (await findOpenSeat(tx, aboutId, personId)) === null) return null
  const ctx: Context = { tx, now, actor }
  try {
    const doc = await readRequestDecision(ctx, aboutId)
    const ways = waysOf(actor.locale)
    const { timeZone } = await requireOrganisation(tx)
    const today = dayOf(now, timeZone)
    const replyTo = await answerAddress(ctx, mail, doc, today)
    const { text, html } = writeDecisionLetter(
      {
        doc,
        sentence: told.code === 'to-decide' ? null : sayTold(told, ways).sentence,
        address: `${environment().publicUrl}${decidePath(aboutId)}`,
        answerable: replyTo !== null,
        today,
      },
      ways,
    )
    return { text, html, replyTo, files: await filesOf(ctx, aboutId) }
  } catch (error) {
    // It is not for them to see any more, or too much for a PDF: the plain mail leads to the page.
    if (error instanceof Problem) return null
    throw error
  }
}

/** Where the mail is answered; null where it is decided on the page alone. */
async function answerAddress(
  { tx, now, actor }: Context,
  mail: WaitingMail,
  doc: Awaited<ReturnType<typeof readRequestDecision>>,
  today: ReturnType<typeof dayOf>,
): Promise<string | null> {
  const { answers, sessionSecret } = environment()
  const route = await findRoute(tx, mail.aboutId)
  if (answers === null || route === null) return null
  const { form } = await requireVersion(tx, now, today)
  if (!mayAnswerByMail(form, doc.amount) || (await isFactorAsked(tx, actor.id))) return null
  const secret = answerSecret(sessionSecret, mail.id)
  await insertAnswerKey(tx, secret, {
    personId: actor.id,
    documentId: mail.aboutId,
    round: route.round,
    expiresAt: new Date(now.getTime() + ANSWERED_DAYS * DAY_MS),
  })
  return `${ANSWER_PREFIX}${secret}@${answers.domain}`
}

/** What stands before the secret in an address that is answered. */
export const ANSWER_PREFIX = 'decide-'

/** The request as a PDF, and the quotes with it as far as they are not too much for a mail. */
async function filesOf(ctx: Context, id: string): Promise<Dressed['files']> {
  const { paper, name } = await readRequisitionPaper(ctx, id)
  const files = [{ name, mime: 'application/pdf', bytes: await inWorkshop('make-pdf', paper, environment().root) }]
  let room = MOST_BYTES
  for (const a of await listAttachments(ctx.tx, id)) {
    if (a.kind !== 'quote' || a.size > room) continue
    const found = await findFile(ctx.tx, a.fileHash)
    if (found === null) continue
    room -= a.size
    files.push({ name: a.name, mime: a.mime, bytes: found.bytes })
  }
  return files
}
