import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import type { Condition, Policy, Who } from '#core/approval/policy'
import type { Approved } from '#core/approval/progress'
import type { Route } from '#core/approval/route'
import type { Tx } from '../db/client'
import { row, rows } from '../db/rows'

interface PolicyRow {
  id: string
  ending: 'fallback' | 'passes'
  fallbackId: string | null
  rules: RuleRow[]
}
interface RuleRow {
  id: string
  name: string
  conditions: Condition[]
  sparesManagers: boolean
  steps: { rank: number; who: Who; mustCover: boolean }[]
}

/** The approval policy in force on a day, with the holders of the roles that it names. */
export async function requirePolicy(tx: Tx, today: Day): Promise<Policy> {
  const found = await row<PolicyRow>(
    tx,
    sql`
    select p.id, p.ending, p.fallback_id as "fallbackId", coalesce((
      select json_agg(json_build_object('id', r.id, 'name', r.name, 'conditions', r.conditions, 'sparesManagers',
        r.spares_managers,
        'steps', coalesce((
          select json_agg(json_build_object('rank', s.rank, 'mustCover', s.must_cover, 'who', case
            when s.who ->> 'by' = 'role' then s.who || jsonb_build_object('holders', coalesce((
              select jsonb_agg(distinct g.person_id) from role_grant g where g.role = s.who ->> 'role'
                and (g.department_id is null or g.department_id::text is not distinct from s.who ->> 'departmentId')),
                  '[]'))
            else s.who end) order by s.position)
          from approval_step s where s.rule_id = r.id), '[]')) order by r.position)
      from approval_rule r where r.policy_id = p.id), '[]') as rules
    from approval_policy p where p.in_force_from <= ${today} order by p.in_force_from desc, p.id limit 1`,
  )
  if (found === null) throw new Error('There is no approval policy in force.')
  return found
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
}

/** The newest route of a document; null before it was first sent. */
export function findRoute(tx: Tx, documentId: string): Promise<RouteRow | null> {
  return row<RouteRow>(
    tx,
    sql`
    select id, document_id as "documentId", round, state, amount, currency, route from approval_route
    where document_id = ${documentId} order by round desc limit 1`,
  )
}

export interface DecisionRow {
  id: string
  routeId: string
  actorId: string
  actor: string
  forId: string | null
  forName: string | null
  outcome: 'approved' | 'sent back' | 'rejected'
  comment: string
  at: string
  eventSeq: number
  takenBack: boolean
}

/** All decisions on a document, oldest first. */
export function listDecisions(tx: Tx, documentId: string): Promise<DecisionRow[]> {
  return rows<DecisionRow>(
    tx,
    sql`
    select d.id, d.route_id as "routeId", d.actor_id as "actorId", a.name as actor, d.for_id as "forId",
      f.name as "forName", d.outcome,
      d.comment, to_char(d.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as at, d.event_seq as "eventSeq",
        d.taken_back_at is not null as "takenBack"
    from approval_decision d join person a on a.id = d.actor_id left join person f on f.id = d.for_id
    where d.document_id = ${documentId} order by d.at, d.event_seq`,
  )
}

/** The approvals of a document that stand. */
export async function listApprovals(tx: Tx, documentId: string): Promise<Approved[]> {
  return standing(await listDecisions(tx, documentId))
}

/** Of decisions, the approvals that were not taken back. */
export function standing(decisions: readonly DecisionRow[]): Approved[] {
  return decisions.filter((d) => d.outcome === 'approved' && !d.takenBack).map((d) => ({ actorId: d.actorId }))
}

/** The open seat of a person on a document; null when nothing waits for them. */
export function findOpenSeat(
  tx: Tx,
  documentId: string,
  personId: string,
): Promise<{ id: string; routeId: string; forId: string | null } | null> {
  return row(
    tx,
    sql`
    select id, route_id as "routeId", for_id as "forId" from approval_seat
    where document_id = ${documentId} and actor_id = ${personId} and state = 'open' limit 1`,
  )
}

/** Whoever a document waits for now. */
export function listOpenActors(tx: Tx, documentId: string): Promise<{ id: string; name: string }[]> {
  return rows(
    tx,
    sql`select distinct p.id, p.name from approval_seat s join person p on p.id = s.actor_id
      where s.document_id = ${documentId} and s.state = 'open' order by p.name`,
  )
}

/** Documents on an open or held route: they are routed again when people or policy change. */
export function listOpenRoutes(tx: Tx): Promise<{ documentKind: string; documentId: string }[]> {
  return rows(
    tx,
    sql`
    select document_kind as "documentKind", document_id as "documentId" from approval_route where state in ('open',
      'held') order by document_id`,
  )
}
