import { dayOf, fiscalPeriod, type Day } from '#core/base/day'
import type { PersonPage } from '#shared/contract/personal'
import { saysSame } from '#core/base/entries'
import { withSuccessor } from '#core/approval/policy-form'
import { findLastVersion } from '../approval/reads'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { invalid, notFound, refused } from '../http/problem'
import { listOwnedOrders } from '../order/owned-reads'
import { listCovered } from '../people/absence-reads'
import { findDraft } from '../decide/policy-reads'
import { endOtherSessions } from '../people/session-store'
import { endTokens } from '../people/token-store'
import { listOwned } from '../requisition/reads'
import { requireOrganisation } from '../settings/reads'
import { findPersonal, listHeldUp, listKept, listLeft, type PersonRow } from './personal-reads'
import { erase } from './personal-store'

async function requirePerson({ tx }: Context, id: string): Promise<PersonRow> {
  const found = await findPersonal(tx, id)
  if (found === null) throw notFound('This person')
  return found
}

/** An address that no mail reaches (RFC 2606); whoever has it was erased. */
const ERASED = /^erased-.*@erased\.invalid$/

/** Who somebody is, what they own that is not over, and what stands still without them; drafts and trays counted. */
export async function readPersonPage(ctx: Context, id: string): Promise<PersonPage> {
  const found = await requirePerson(ctx, id)
  const { timeZone, fiscalStartMonth } = await requireOrganisation(ctx.tx)
  const today = dayOf(ctx.now, timeZone)
  const { year } = fiscalPeriod(today, fiscalStartMonth)
  const requests = await listOwned(ctx.tx, id, 'all')
  const orders = await listOwnedOrders(ctx.tx, id, 'all')
  const numbered = (all: readonly { number: string | null }[]) => all.filter((d) => d.number !== null).length
  return {
    ...found,
    isErased: ERASED.test(found.email),
    requests: numbered(requests),
    drafts: requests.length - numbered(requests),
    orders: numbered(orders),
    trays: orders.length - numbered(orders),
    ...(await listHeldUp(ctx.tx, id, today, year)),
    standsIn: (await listCovered(ctx.tx, id, today)).map((a) => a.name),
    inPolicy: await isInPolicy(ctx, id, today),
  }
}

/** Whether the draft of the policy, or the newest version where there is none, names somebody. */
async function isInPolicy({ tx }: Context, id: string, today: Day): Promise<boolean> {
  const draft = await findDraft(tx)
  const form = draft?.form ?? (await findLastVersion(tx, today))?.form
  return form !== undefined && !saysSame(form, withSuccessor(form, id, ''))
}

/** Signs somebody out everywhere and ends their tokens. */
export async function signOut(ctx: Context, id: string): Promise<{ sessions: number; tokens: number }> {
  if (id === ctx.actor.id) throw refused(['One’s own sessions are ended under Account.'])
  await requirePerson(ctx, id)
  const sessions = await endOtherSessions(ctx.tx, id, '', ctx.now)
  const tokens = await endTokens(ctx.tx, id, ctx.now)
  const after = { sessions, tokens }
  await appendEvent(ctx, { type: 'signed out by another', subjectKind: 'session', subjectId: id, after })
  return after
}

/** All that is kept of somebody, as JSON; that it was taken along is an event. */
export async function takePersonalData(
  ctx: Context,
  id: string,
): Promise<{ bytes: Buffer; name: string; mime: string }> {
  const found = await requirePerson(ctx, id)
  const kept = { person: found, ...(await listKept(ctx.tx, id)) }
  return {
    bytes: Buffer.from(JSON.stringify(kept, null, 2)),
    name: `what is kept of ${found.name}.json`,
    mime: 'application/json',
  }
}

/**
 * Takes away who somebody was who has left and owns nothing that is not over. Documents, decisions and events stay, by
 * a name that tells nobody; it cannot be taken back.
 */
export async function erasePerson(ctx: Context, id: string, typedName: string): Promise<void> {
  const page = await readPersonPage(ctx, id)
  const today = dayOf(ctx.now, (await requireOrganisation(ctx.tx)).timeZone)
  if (page.isErased) throw refused(['This person was erased already.'])
  if (page.leftOn === null || page.leftOn >= today)
    throw refused([`${page.name} is still here; the last day stands in the list of people.`])
  if (owns(page))
    throw refused([`${page.name} still owns or holds something; hand it over first, under Away and in the lists.`])
  if (typedName.trim() !== page.name)
    throw invalid('Type the name as it is, so that nobody is erased by mistake.', [
      { field: 'name', message: 'is another' },
    ])
  await eraseIt(ctx, id)
}

/** Erases everybody who left before a day and owns or holds nothing any more; answers with how many. */
export async function eraseLeft(ctx: Context, before: Day): Promise<number> {
  let erased = 0
  for (const id of await listLeft(ctx.tx, before)) {
    const page = await readPersonPage(ctx, id)
    if (page.isErased || owns(page)) continue
    await eraseIt(ctx, id)
    erased += 1
  }
  return erased
}

/** Whether something would be nobody's. */
const owns = (page: PersonPage): boolean =>
  page.requests + page.drafts + page.orders + page.trays + page.budgetLines.length + page.reports.length > 0

async function eraseIt(ctx: Context, id: string): Promise<void> {
  const mark = id.slice(0, 8)
  await erase(ctx.tx, id, { name: `Former colleague ${mark}`, email: `erased-${mark}@erased.invalid` })
  await appendEvent(ctx, { type: 'erased', subjectKind: 'person', subjectId: id })
}
