import { withSuccessor } from '#core/approval/policy-form'
import { dayOf, type Day } from '#core/base/day'
import { may } from '#core/people/rights'
import { saysSame } from '#core/base/entries'
import { ownersOf } from '../approval/decidable'
import { handPlace } from '../approval/hand-place'
import { findLastVersion, findRoute } from '../approval/reads'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { keepDraft } from '../decide/policy-draft'
import { lockDraft } from '../decide/policy-store'
import { Problem, invalid, refused } from '../http/problem'
import { DECIDABLES } from '../kinds'
import { findVersion } from '../lists/list-store'
import { keepRows } from '../lists/keep-list'
import { giveOrders } from '../order/give-order'
import { listCovered } from '../people/absence-reads'
import type { Actor } from '../people/actor'
import { requireHere } from '../people/find-people'
import { findAddresses } from '../people/person-reads'
import { endOtherSessions } from '../people/session-store'
import { replaceSubstitute } from '../people/store'
import { tellPerson } from '../people/tell-person'
import { endTokens } from '../people/token-store'
import { giveRequisitions } from '../requisition/hand-over'
import { requireOrganisation } from '../settings/reads'
import { readPersonPage } from './person-page'
import { listOpenSteps, listReportIds } from './personal-reads'

/** Who gets what of somebody who leaves; null where it goes to nobody. */
export interface Successors {
  readonly lastDay: Day
  readonly requestsTo: string | null
  readonly ordersTo: string | null
  /** Who decides what waits for them, stands in where they did, and has their places in the policy. */
  readonly decisionsTo: string | null
  readonly reportsTo: string | null
}

/** What was moved. */
export interface Left {
  readonly requests: number
  readonly orders: number
  readonly decisions: number
  readonly standIns: number
  readonly reports: number
  /** What stays, since whoever was to get it may not have it: it is routed again once they are gone. */
  readonly kept: number
  /** What became of their places in the policy. */
  readonly policy: 'none' | 'drafted' | 'waits'
}

/**
 * Somebody leaves: their last day is written down, and all that is theirs goes to others in one action: what they own,
 * what waits for them, where they stand in, whom they manage, and their places in the policy, as a draft that a second
 * person confirms as any other. Budget lines are finance's to give. All or none.
 */
export async function letLeave(ctx: Context, personId: string, s: Successors): Promise<Left> {
  const { tx, now, actor } = ctx
  if (personId === actor.id) throw refused(['Somebody else lets you leave.'])
  const page = await readPersonPage(ctx, personId)
  if (page.isErased) throw refused(['This person was erased already.'])
  const to = await receiversOf(ctx, personId, s)
  // Requisitions are locked before orders, everywhere.
  const requests = to.requests === null ? NOTHING : await giveRequisitions(ctx, personId, to.requests, 'all')
  const steps = to.decisions === null ? { moved: 0, kept: 0 } : await passAllOn(ctx, personId, to.decisions)
  const orders = to.orders === null ? NOTHING : await giveOrders(ctx, personId, to.orders, 'all')
  const standIns = to.decisions === null ? 0 : await standInElsewhere(ctx, personId, to.decisions)
  const policy = to.decisions === null ? 'none' : await replaceInPolicy(ctx, personId, to.decisions)
  const reports = to.reports === null ? 0 : await giveReports(ctx, personId, to.reports)
  await keepPeople(ctx, ['email', 'leftOn'], [[page.email, s.lastDay]])
  const today = dayOf(now, (await requireOrganisation(tx)).timeZone)
  if (s.lastDay < today) {
    await endOtherSessions(tx, personId, '', now)
    await endTokens(tx, personId, now)
  }
  const left: Left = {
    requests: requests.sent + requests.drafts,
    orders: orders.sent + orders.drafts,
    decisions: steps.moved,
    standIns,
    reports,
    kept: requests.kept + steps.kept,
    policy,
  }
  await appendEvent(ctx, {
    type: 'let leave',
    subjectKind: 'person',
    subjectId: personId,
    after: { ...s, moved: left },
  })
  if (to.requests !== null && left.requests > 0)
    await tellOwner(ctx, to.requests, page.name, { requests: requests.sent, drafts: requests.drafts }, personId)
  if (to.orders !== null && left.orders > 0)
    await tellOwner(ctx, to.orders, page.name, { orders: orders.sent, trays: orders.drafts }, personId)
  return left
}

const NOTHING = { sent: 0, drafts: 0, kept: 0 }

type Receivers = Readonly<Record<'requests' | 'orders' | 'decisions' | 'reports', Actor | null>>

async function receiversOf(ctx: Context, personId: string, s: Successors): Promise<Receivers> {
  const here = async (id: string | null, field: string) => {
    if (id === personId) throw invalid('Choose somebody who stays.', [{ field, message: 'is who leaves' }])
    return id === null ? null : requireHere(ctx, id)
  }
  if (s.decisionsTo === ctx.actor.id) throw refused(['Nobody passes on to themselves what waits for others.'])
  const orders = await here(s.ordersTo, 'ordersTo')
  if (orders !== null && !may(orders.grants, 'order'))
    throw refused([`${orders.name} is no buyer, and orders are owned by buyers.`])
  return {
    requests: await here(s.requestsTo, 'requestsTo'),
    orders,
    decisions: await here(s.decisionsTo, 'decisionsTo'),
    reports: await here(s.reportsTo, 'reportsTo'),
  }
}

/** Passes on all that waits for somebody; what the receiver may not have stays, and is routed again once they left. */
async function passAllOn(ctx: Context, personId: string, to: Actor): Promise<{ moved: number; kept: number }> {
  const done = { moved: 0, kept: 0 }
  for (const step of await listOpenSteps(ctx.tx, personId)) {
    const kind = DECIDABLES[step.documentKind]
    const document = (await kind?.find(ctx.tx, step.documentId, true)) ?? null
    const row = document === null ? null : await findRoute(ctx.tx, step.documentId)
    if (kind === undefined || document === null || row === null) continue
    // Nobody says who decides on their own.
    if (ownersOf(kind, document).includes(ctx.actor.id)) {
      done.kept += 1
      continue
    }
    try {
      await handPlace(ctx, kind, document, row, {
        how: 'on',
        byId: step.forId ?? personId,
        forId: null,
        to,
        comment: '',
      })
      done.moved += 1
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      done.kept += 1
    }
  }
  return done
}

async function standInElsewhere(ctx: Context, personId: string, to: Actor): Promise<number> {
  const today = dayOf(ctx.now, (await requireOrganisation(ctx.tx)).timeZone)
  const covered = await listCovered(ctx.tx, personId, today)
  for (const a of covered) await replaceSubstitute(ctx.tx, a.id, personId, a.personId === to.id ? null : to.id)
  return covered.length
}

async function replaceInPolicy(ctx: Context, personId: string, to: Actor): Promise<Left['policy']> {
  const draft = await lockDraft(ctx.tx)
  const today = dayOf(ctx.now, (await requireOrganisation(ctx.tx)).timeZone)
  const form = draft === null || draft.state === 'none' ? (await findLastVersion(ctx.tx, today))?.form : draft.form
  if (form === undefined) return 'none'
  const next = withSuccessor(form, personId, to.id)
  if (saysSame(form, next)) return 'none'
  if (draft?.state === 'waiting') return 'waits'
  const name = draft === null || draft.state === 'none' ? `${to.name} in the places of somebody who leaves` : next.name
  await keepDraft(ctx, draft?.version ?? 0, { ...next, name })
  return 'drafted'
}

async function giveReports(ctx: Context, personId: string, to: Actor): Promise<number> {
  const ids = (await listReportIds(ctx.tx, personId)).filter((id) => id !== to.id)
  if (ids.length === 0) return 0
  const addresses = await findAddresses(ctx.tx, [...ids, to.id])
  const of = (id: string) => addresses.get(id)?.email ?? ''
  await keepPeople(
    ctx,
    ['email', 'manager'],
    ids.map((id) => [of(id), of(to.id)]),
  )
  return ids.length
}

/** Through the list of people, with its checks, its event and what follows it. */
async function keepPeople(ctx: Context, columns: string[], cells: string[][]): Promise<void> {
  await keepRows(ctx, 'people', await findVersion(ctx.tx, 'people'), {
    columns,
    cells,
    source: 'leaving',
    gone: 'keep',
  })
}

function tellOwner(
  ctx: Context,
  to: Actor,
  of: string,
  moved: { requests?: number; drafts?: number; orders?: number; trays?: number },
  personId: string,
): Promise<void> {
  return tellPerson(
    ctx,
    to.id,
    { kind: 'person', id: personId },
    { code: 'owned-handed-over', by: ctx.actor.name, of, requests: 0, drafts: 0, orders: 0, trays: 0, ...moved },
    { path: moved.orders === undefined ? '/mine' : '/orders' },
  )
}
