import { eq, sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import type { Policy, SentSubject } from '#core/approval/policy'
import { policyOf, type PolicyForm, type RoleHolder } from '#core/approval/policy-form'
import { standingApprovals, type Approved, type Sending } from '#core/approval/standing'
import type { Route } from '#core/approval/route'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { named, read, readOne } from '../db/read'
import { holdsOn } from '../people/grant-reads'
import { person, roleGrant } from '../db/schema/people'
import {
  approvalDecision,
  approvalPolicy,
  approvalRoute,
  approvalRule,
  approvalSeat,
  approvalStep,
} from '../db/schema/approval'

const g = named(roleGrant, 'g')
const s = named(approvalStep, 's')
const r = named(approvalRule, 'r')
const y = named(approvalPolicy, 'y')
const d = named(approvalDecision, 'd')
const e = named(approvalRoute, 'e')
const a = named(person, 'a')
const f = named(person, 'f')
const t = named(approvalSeat, 't')
const p = named(person, 'p')

interface VersionRow {
  id: string
  number: number
  form: PolicyForm
  grants: RoleHolder[]
}

/** A policy with the roles that its steps name: the version, as it was written, and whoever holds them on a day. */
const versionOn = (today: Day) => ({
  id: y.id,
  number: y.number,
  form: sql<VersionRow['form']>`json_build_object('name', ${y.name}, 'ending', ${y.ending}, 'fallbackId',
    ${y.fallbackId}, 'ownLimitDays', ${y.ownLimitDays}, 'remindDays', ${y.remindDays}, 'escalateDays',
    ${y.escalateDays}, 'maySkip', ${y.maySkip}, 'mayChange', ${y.mayChange}, 'orderTolerance',
    ${y.orderTolerance}, 'directOrders', ${y.directOrders}, 'byMail', ${y.byMail}, 'rules', coalesce((
      select json_agg(json_build_object('id', ${r.lineage}, 'name', ${r.name}, 'documents', ${r.documents},
        'conditions', ${r.conditions}, 'sparesManagers', ${r.sparesManagers}, 'steps', coalesce((
          select json_agg(json_build_object('rank', ${s.rank}, 'mustCover', ${s.mustCover}, 'who', ${s.who})
            order by ${s.position})
          from ${s} where ${s.ruleId} = ${r.id}), '[]')) order by ${r.position})
      from ${r} where ${r.policyId} = ${y.id}), '[]'))`,
  grants: sql<VersionRow['grants']>`coalesce((
    select json_agg(json_build_object('personId', ${g.personId}, 'role', ${g.role}, 'departmentId', ${g.departmentId},
      'placeId', ${g.placeId}) order by ${g.personId})
    from ${g} where ${holdsOn(g, today)} and ${g.role} in (
      select ${s.who} ->> 'role' from ${r} join ${s} on ${s.ruleId} = ${r.id} where ${r.policyId} = ${y.id})), '[]')`,
})

/** That a version `y` holds at a moment, unless a newer one does. */
const hasBegun = (now: Date) => sql`${y.inForceAt} <= ${now.toISOString()} and ${y.calledOffAt} is null`

/** The version of the policy in force at a moment, as it was written, with the holders of its roles on that day. */
export async function requireVersion(tx: Tx, now: Date, today: Day): Promise<VersionRow> {
  const found = await readOne(
    tx,
    versionOn(today),
    sql`from ${y} where ${hasBegun(now)} order by ${y.inForceAt} desc, ${y.number} desc limit 1`,
  )
  if (found === null) throw new Error('There is no approval policy in force.')
  return found
}

/** What the policy in force says of orders: by how much they may pass what was approved, and which need no request. */
export async function findOrderPolicy(
  tx: Tx,
  now: Date,
): Promise<{ tolerance: PolicyForm['orderTolerance']; directOrders: PolicyForm['directOrders'] }> {
  const found = await readOne(
    tx,
    { tolerance: y.orderTolerance, directOrders: y.directOrders },
    sql`from ${y} where ${hasBegun(now)} order by ${y.inForceAt} desc, ${y.number} desc limit 1`,
  )
  return found ?? { tolerance: null, directOrders: { upTo: null } }
}

/** A version of the policy by its number; null where there is none. */
export const findVersion = (tx: Tx, number: number, today: Day): Promise<VersionRow | null> =>
  readOne(tx, versionOn(today), sql`from ${y} where ${y.number} = ${number}`)

/** The version that will hold last of all that are known now: what a draft begins from. */
export const findLastVersion = (tx: Tx, today: Day): Promise<VersionRow | null> =>
  readOne(
    tx,
    versionOn(today),
    sql`from ${y} where ${y.calledOffAt} is null order by ${y.inForceAt} desc, ${y.number} desc limit 1`,
  )

/** The approval policy in force at a moment, with the holders of the roles that it names. */
export async function requirePolicy(tx: Tx, now: Date, today: Day): Promise<Policy> {
  const { id, form, grants } = await requireVersion(tx, now, today)
  return policyOf(id, form, grants)
}

/** Everybody a policy names by person, role or group, and its fallback. */
export function peopleNamedBy(policy: Policy): string[] {
  const named = policy.rules.flatMap((r) =>
    r.steps.flatMap(({ who }) =>
      who.by === 'person' ? [who.personId] : who.by === 'role' ? who.holders : who.by === 'group' ? who.members : [],
    ),
  )
  return policy.fallbackId === null ? named : [...named, policy.fallbackId]
}

export interface RouteRow {
  id: string
  documentId: string
  round: number
  state: 'open' | 'held' | 'approved' | 'stopped'
  amount: DecimalText
  currency: string
  route: Route
  sent: SentSubject
  /** The version of the policy that it was last worked out by. */
  policyId: string | null
}

/** The newest route of a document; null before it was first sent. */
export function findRoute(tx: Tx, documentId: string): Promise<RouteRow | null> {
  return readOne(
    tx,
    {
      id: approvalRoute.id,
      documentId: approvalRoute.documentId,
      round: approvalRoute.round,
      state: approvalRoute.state,
      amount: approvalRoute.amount,
      currency: approvalRoute.currency,
      route: approvalRoute.route,
      sent: approvalRoute.sent,
      policyId: approvalRoute.policyId,
    },
    sql`from ${approvalRoute}
    where ${approvalRoute.documentId} = ${documentId} order by ${approvalRoute.round} desc limit 1`,
  )
}

export interface DecisionRow {
  id: string
  routeId: string
  round: number
  actorId: string
  actor: string
  forId: string | null
  forName: string | null
  outcome: 'approved' | 'sent back' | 'rejected'
  comment: string
  byMail: boolean
  at: string
  eventSeq: number
  takenBack: boolean
  /** What was changed of the document while approving it, as it was before; null where nothing was. */
  changedFrom: unknown
}

/** All decisions on a document, oldest first. */
export function listDecisions(tx: Tx, documentId: string): Promise<DecisionRow[]> {
  return read(
    tx,
    {
      id: d.id,
      routeId: d.routeId,
      round: e.round,
      actorId: d.actorId,
      actor: a.name,
      forId: d.forId,
      forName: f.name,
      outcome: d.outcome,
      comment: d.comment,
      byMail: d.byMail,
      at: UTC(d.at),
      eventSeq: d.eventSeq,
      takenBack: sql<DecisionRow['takenBack']>`${d.takenBackAt} is not null`,
      changedFrom: sql<unknown>`${d.changedFrom}`,
    },
    sql`from ${d} join ${e} on ${e.id} = ${d.routeId} join ${a} on ${a.id} = ${d.actorId}
      left join ${f} on ${f.id} = ${d.forId}
    where ${d.documentId} = ${documentId} order by ${d.at}, ${d.eventSeq}`,
  )
}

/** The sendings of a document, oldest first. */
export function listSendings(tx: Tx, documentId: string): Promise<Sending[]> {
  return tx
    .select({ round: approvalRoute.round, keepsEarlier: approvalRoute.keepsEarlier })
    .from(approvalRoute)
    .where(eq(approvalRoute.documentId, documentId))
    .orderBy(approvalRoute.round)
}

/** The decisions on a document, oldest first, and those of them that are approvals which stand on its last sending. */
export async function readDecisions(
  tx: Tx,
  documentId: string,
): Promise<{ decisions: DecisionRow[]; standing: DecisionRow[] }> {
  const decisions = await listDecisions(tx, documentId)
  return { decisions, standing: standingApprovals(decisions, await listSendings(tx, documentId)) }
}

/**
 * The approvals that stand on the last sending; or, with `next`, on the one that is about to be written, which keeps
 * what stood or begins anew.
 */
export async function listApprovals(tx: Tx, documentId: string, next?: Sending): Promise<Approved[]> {
  const sendings = await listSendings(tx, documentId)
  const all = next === undefined ? sendings : [...sendings, next]
  return standingApprovals(await listDecisions(tx, documentId), all).map(({ actorId, forId }) => ({ actorId, forId }))
}

/** Whoever approved some documents, by their names. */
export function listApprovers(tx: Tx, documentIds: readonly string[]): Promise<{ personId: string; name: string }[]> {
  return read(
    tx,
    { personId: a.id, name: a.name },
    sql`from ${d} join ${a} on ${a.id} = ${d.actorId}
    where ${d.documentId} = any(${sql.param([...documentIds])}::uuid[]) and ${d.outcome} = 'approved'
      and ${d.takenBackAt} is null order by ${a.name}`,
    { distinct: true },
  )
}

/** The open seat of a person on a document; null when nothing waits for them. */
export function findOpenSeat(
  tx: Tx,
  documentId: string,
  personId: string,
): Promise<{ id: string; routeId: string; forId: string | null } | null> {
  return readOne(
    tx,
    { id: approvalSeat.id, routeId: approvalSeat.routeId, forId: approvalSeat.forId },
    sql`from ${approvalSeat}
    where ${approvalSeat.documentId} = ${documentId} and ${approvalSeat.actorId} = ${personId}
    and ${approvalSeat.state} = 'open' limit 1`,
  )
}

/** Whoever a document waits for now. */
export function listOpenActors(tx: Tx, documentId: string): Promise<{ id: string; name: string }[]> {
  return read(
    tx,
    { id: p.id, name: p.name },
    sql`from ${t} join ${p} on ${p.id} = ${t.actorId}
      where ${t.documentId} = ${documentId} and ${t.state} = 'open' order by ${p.name}`,
    { distinct: true },
  )
}

/** Documents on an open or held route: they are routed again when people or policy change. */
export function listOpenRoutes(tx: Tx): Promise<{ documentKind: string; documentId: string }[]> {
  return read(
    tx,
    { documentKind: approvalRoute.documentKind, documentId: approvalRoute.documentId },
    sql`from ${approvalRoute} where ${approvalRoute.state} in ('open',
      'held') order by ${approvalRoute.documentId}`,
  )
}

/** Whose seats on a route are late: their manager is asked too. */
export async function listLate(tx: Tx, routeId: string): Promise<string[]> {
  const found = await read(
    tx,
    { personId: sql<string>`coalesce(${t.forId}, ${t.actorId})` },
    sql`from ${t} where ${t.routeId} = ${routeId} and ${t.state} = 'open' and ${t.lateAt} is not null`,
    { distinct: true },
  )
  return found.map((f) => f.personId)
}

export interface OpenSeat {
  id: string
  actorId: string
  openedAt: string
  remindedAt: string | null
  lateAt: string | null
}
const OPEN_SEAT = {
  id: t.id,
  actorId: t.actorId,
  openedAt: UTC(t.openedAt),
  remindedAt: sql<string | null>`${UTC(t.remindedAt)}`,
  lateAt: sql<string | null>`${UTC(t.lateAt)}`,
}

/** Documents on which a seat has been open since before a moment, the longest waiting first. */
export const listWaitingSince = (tx: Tx, before: Date): Promise<{ documentKind: string; documentId: string }[]> =>
  read(
    tx,
    { documentKind: e.documentKind, documentId: t.documentId },
    sql`from ${t} join ${e} on ${e.id} = ${t.routeId}
      where ${t.state} = 'open' and ${t.openedAt} < ${before.toISOString()}
      group by ${e.documentKind}, ${t.documentId} order by min(${t.openedAt}), ${t.documentId}`,
  )

/** The open seats of a document. */
export const listOpenSeats = (tx: Tx, documentId: string): Promise<OpenSeat[]> =>
  read(
    tx,
    OPEN_SEAT,
    sql`from ${t} where ${t.documentId} = ${documentId} and ${t.state} = 'open' order by ${t.openedAt}, ${t.id}`,
  )
