import { sql } from 'drizzle-orm'
import type { PolicyForm, RoleHolder } from '#core/approval/policy-form'
import type { Day } from '#core/base/day'
import type { Role } from '#core/people/rights'
import type { Tx } from '../db/client'
import { SECONDS } from '../db/moments'
import { named, read, readOne, sure } from '../db/read'
import { approvalDecision, approvalPolicy, policyDraft } from '../db/schema/approval'
import { account, budgetLine } from '../db/schema/budget'
import { department, departmentMember, person, roleGrant } from '../db/schema/people'
import { exchangeRate } from '../db/schema/settings'
import { holdsOn } from '../people/grant-reads'

const y = named(approvalPolicy, 'y')
const b = named(budgetLine, 'b')
const a = named(account, 'a')
const d = named(department, 'd')
const dm = named(departmentMember, 'dm')
const p = named(person, 'p')
const f = named(policyDraft, 'f')
const k = named(person, 'k')
const c = named(person, 'c')
const o = named(person, 'o')
const z = named(approvalDecision, 'z')
const g = named(roleGrant, 'g')
const x = named(exchangeRate, 'x')

/** All versions there ever were, the newest first, with how many decisions followed each. */
export const listVersions = (tx: Tx) =>
  read(
    tx,
    {
      number: y.number,
      name: y.name,
      inForceAt: SECONDS(y.inForceAt),
      askedBy: sql<string | null>`${k.name}`,
      confirmedBy: sql<string | null>`${c.name}`,
      calledOffBy: sql<string | null>`${o.name}`,
      isCalledOff: sql<boolean>`${y.calledOffAt} is not null`,
      decisions: sql<number>`(select count(*)::int from ${z} where ${z.policyId} = ${y.id})`,
    },
    sql`from ${y} left join ${k} on ${k.id} = ${y.askedById} left join ${c} on ${c.id} = ${y.confirmedById}
      left join ${o} on ${o.id} = ${y.calledOffById} order by ${y.number} desc`,
  )

/** The number that the next version gets: they are counted without gaps, under the draft's lock. */
export async function nextNumber(tx: Tx): Promise<number> {
  const [row] = await read(tx, { number: sql<number>`coalesce(max(${y.number}), 0)::int + 1` }, sql`from ${y}`)
  return row?.number ?? 1
}

export interface DraftFound {
  form: PolicyForm
  version: number
  state: 'none' | 'written' | 'waiting'
  begunFrom: number
  changedBy: string
  changedAt: string
  inForceAt: string | null
  writers: string[]
  askedById: string | null
  askedBy: string | null
  askedAt: string | null
  returned: string
}

/** The draft as it lies there; null where nothing was ever drafted. */
export const findDraft = (tx: Tx): Promise<DraftFound | null> =>
  readOne(
    tx,
    {
      form: f.form,
      version: f.version,
      state: f.state,
      begunFrom: f.begunFrom,
      changedBy: c.name,
      changedAt: SECONDS(f.changedAt),
      inForceAt: sql<string | null>`${SECONDS(f.inForceAt)}`,
      writers: f.writers,
      askedById: f.askedById,
      askedBy: sql<string | null>`${k.name}`,
      askedAt: sql<string | null>`${SECONDS(f.askedAt)}`,
      returned: f.returned,
    },
    sql`from ${f} join ${c} on ${c.id} = ${f.changedById} left join ${k} on ${k.id} = ${f.askedById}`,
  )

/** Who holds which role on a day, and for what. */
export const listRoleHolders = (tx: Tx, today: Day): Promise<RoleHolder[]> =>
  read(
    tx,
    { personId: g.personId, role: sql<Role>`${g.role}`, departmentId: g.departmentId, placeId: g.placeId },
    sql`from ${g} where ${holdsOn(g, today)} order by ${g.personId}, ${g.role}`,
  )

/** Everybody, and the departments open to them: their own, and those besides. */
export const listOpenTo = (tx: Tx): Promise<{ personId: string; departmentIds: string[] }[]> =>
  read(
    tx,
    {
      personId: p.id,
      departmentIds: sql<
        string[]
      >`array(select ${d.id} from ${d} where not ${d.retired} and (${d.id} = ${p.departmentId}
        or ${d.id} in (select ${dm.departmentId} from ${dm} where ${dm.personId} = ${p.id})) order by ${d.name})`,
    },
    sql`from ${p} order by ${p.name}, ${p.id}`,
  )

/** Every account, those that are retired too: versions of the policy may name them. */
export const listAllAccounts = (tx: Tx): Promise<{ code: string; name: string; retired: boolean }[]> =>
  read(tx, { code: a.code, name: a.name, retired: a.retired }, sql`from ${a} order by ${a.code}`)

/** Every project that a budget line was ever for. */
export async function listProjects(tx: Tx): Promise<string[]> {
  const found = await read(
    tx,
    { code: sure(b.projectCode) },
    sql`from ${b} where ${b.projectCode} is not null order by 1`,
    { distinct: true },
  )
  return found.map((f) => f.code)
}

/** The budget lines of a fiscal year that may pay, without their money. */
export const listCodings = (tx: Tx, year: number) =>
  read(
    tx,
    {
      id: b.id,
      name: b.name,
      departmentId: b.departmentId,
      account: b.accountCode,
      project: b.projectCode,
      accountName: a.name,
      holderId: b.holderId,
    },
    sql`from ${b} join ${a} on ${a.code} = ${b.accountCode}
      where ${b.fiscalYear} = ${year} and not ${b.retired} order by ${b.departmentId}, ${b.accountCode}, ${b.name}`,
  )

/** In which lines may be priced: the base currency, and those with a rate. */
export async function listCurrencies(tx: Tx, base: string): Promise<string[]> {
  const rated = await read(tx, { code: x.currency }, sql`from ${x} group by ${x.currency} order by ${x.currency}`)
  return [...new Set([base, ...rated.map((r) => r.code)])]
}
