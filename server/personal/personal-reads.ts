import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { Tx } from '../db/client'
import { SECONDS } from '../db/moments'
import { named, read, readOne } from '../db/read'
import { approvalDecision, approvalRoute, approvalSeat } from '../db/schema/approval'
import { budgetLine } from '../db/schema/budget'
import { document } from '../db/schema/document'
import { jobPerson } from '../db/schema/job'
import {
  absence,
  accessToken,
  department,
  limitForDays,
  notice,
  person,
  roleGrant,
  session,
  shipTo,
} from '../db/schema/people'
import { job } from '../db/schema/request-form'

const p = named(person, 'p')
const h = named(department, 'h')
const m = named(person, 'm')
const s = named(session, 's')
const t = named(accessToken, 't')
const g = named(roleGrant, 'g')
const b = named(budgetLine, 'b')
const a = named(approvalSeat, 'a')
const r = named(approvalRoute, 'r')
const d = named(document, 'd')
const c = named(approvalDecision, 'c')
const j = named(job, 'j')
const w = named(jobPerson, 'w')
const n = named(notice, 'n')
const y = named(absence, 'y')
const k = named(shipTo, 'k')
const x = named(limitForDays, 'x')

export interface PersonRow {
  id: string
  name: string
  email: string
  jobTitle: string
  department: string
  manager: string | null
  leftOn: Day | null
  locale: string
  sessions: number
  tokens: number
}
/** Who somebody is, and at how many places they are signed in. */
export function findPersonal(tx: Tx, id: string): Promise<PersonRow | null> {
  return readOne(
    tx,
    {
      id: p.id,
      name: p.name,
      email: p.email,
      jobTitle: p.jobTitle,
      department: h.name,
      manager: m.name,
      leftOn: p.leftOn,
      locale: p.locale,
      sessions: sql<number>`(select count(*)::int from ${s} where ${s.personId} = ${p.id} and ${s.endedAt} is null)`,
      tokens: sql<number>`(select count(*)::int from ${t} where ${t.personId} = ${p.id} and ${t.endedAt} is null)`,
    },
    sql`from ${p} join ${h} on ${h.id} = ${p.departmentId} left join ${m} on ${m.id} = ${p.managerId}
      where ${p.id} = ${id}`,
  )
}

/**
 * What stands still without somebody: who reports to them, which budget lines of this fiscal year and those to come
 * they hold, what waits for them, jobs.
 */
export async function listHeldUp(
  tx: Tx,
  id: string,
  today: Day,
  year: number,
): Promise<{ reports: string[]; budgetLines: string[]; waiting: number; jobs: string[] }> {
  const names = async (rest: ReturnType<typeof sql>, name: ReturnType<typeof sql<string>>) =>
    (await read(tx, { name }, rest)).map((r) => r.name)
  const waiting = await readOne(
    tx,
    { n: sql<number>`count(distinct ${a.documentId})::int` },
    sql`from ${a} where ${a.actorId} = ${id} and ${a.state} = 'open'`,
  )
  return {
    reports: await names(
      sql`from ${p} where ${p.managerId} = ${id} and coalesce(${p.leftOn} >= ${today}, true) order by 1`,
      sql<string>`${p.name}`,
    ),
    budgetLines: await names(
      sql`from ${b} where ${b.holderId} = ${id} and not ${b.retired} and ${b.fiscalYear} >= ${year}
        group by 1 order by 1`,
      sql<string>`${b.name}`,
    ),
    waiting: waiting?.n ?? 0,
    jobs: await names(
      sql`from ${w} join ${j} on ${j.id} = ${w.jobId} and ${j.isOpen} where ${w.personId} = ${id} order by 1`,
      sql<string>`${j.name}`,
    ),
  }
}

/** The steps that wait for somebody, in the order of their documents, and for whom they stand in there. */
export function listOpenSteps(
  tx: Tx,
  id: string,
): Promise<{ documentKind: string; documentId: string; forId: string | null }[]> {
  return read(
    tx,
    { documentKind: r.documentKind, documentId: a.documentId, forId: a.forId },
    sql`from ${a} join ${r} on ${r.id} = ${a.routeId} where ${a.actorId} = ${id} and ${a.state} = 'open'
      order by ${a.documentId}, ${a.id}`,
  )
}

/** Whoever has somebody as their manager, but for those who left before today's lists. */
export async function listReportIds(tx: Tx, id: string): Promise<string[]> {
  const found = await read(tx, { id: p.id }, sql`from ${p} where ${p.managerId} = ${id} order by ${p.id}`)
  return found.map((f) => f.id)
}

/** All that is kept of somebody besides documents' own words, for whoever asks what that is. */
export async function listKept(tx: Tx, id: string) {
  return {
    roles: await read(
      tx,
      { role: g.role, department: h.name, place: k.name, from: g.fromDay, until: g.untilDay },
      sql`from ${g} left join ${h} on ${h.id} = ${g.departmentId} left join ${k} on ${k.id} = ${g.placeId}
        where ${g.personId} = ${id} order by 1`,
    ),
    limits: await read(
      tx,
      { of: x.of, amount: x.amount, from: x.fromDay, until: x.untilDay },
      sql`from ${x} where ${x.personId} = ${id} order by ${x.fromDay}, ${x.of}`,
    ),
    absences: await read(
      tx,
      { from: y.fromDay, until: y.untilDay, note: y.note },
      sql`from ${y} where ${y.personId} = ${id} order by 1`,
    ),
    sessions: await read(
      tx,
      { from: s.fromAddress, agent: s.agent, begun: SECONDS(s.createdAt), seen: SECONDS(s.seenAt) },
      sql`from ${s} where ${s.personId} = ${id} order by ${s.createdAt}`,
    ),
    tokens: await read(
      tx,
      { name: t.name, made: SECONDS(t.createdAt) },
      sql`from ${t} where ${t.personId} = ${id} order by ${t.createdAt}`,
    ),
    notices: await read(
      tx,
      { at: SECONDS(n.at), told: n.told },
      sql`from ${n} where ${n.personId} = ${id} order by ${n.at}`,
    ),
    documents: await read(
      tx,
      { kind: d.kind, number: d.number, title: d.title, state: d.state, created: SECONDS(d.createdAt) },
      sql`from ${d} where ${d.ownerId} = ${id} order by ${d.createdAt}`,
    ),
    decisions: await read(
      tx,
      { number: d.number, title: d.title, did: c.outcome, comment: c.comment, at: SECONDS(c.at) },
      sql`from ${c} join ${d} on ${d.id} = ${c.documentId} where ${c.actorId} = ${id} order by ${c.at}`,
    ),
  }
}

/** Whoever left before a day and was not erased yet. */
export async function listLeft(tx: Tx, before: Day): Promise<string[]> {
  const found = await read(
    tx,
    { id: person.id },
    sql`from ${person} where ${person.leftOn} < ${before} and ${person.email} not like 'erased-%@erased.invalid'
      order by ${person.id}`,
  )
  return found.map((f) => f.id)
}
