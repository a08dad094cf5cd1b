import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import { completeDraft, type Draft } from '#core/requisition/draft'
import type { Rhythm } from '#core/requisition/rhythm'
import type { Tx } from '../db/client'
import { named, read, readOne } from '../db/read'
import { budgetLine } from '../db/schema/budget'
import { supplier } from '../db/schema/supplier'
import { template } from '../db/schema/regulars'
import { department, person } from '../db/schema/people'

const d = named(department, 'd')
const t = named(template, 't')
const p = named(person, 'p')
const old = named(budgetLine, 'old')
const same = named(budgetLine, 'same')

export interface TemplateRow {
  id: string
  version: number
  name: string
  ownerId: string
  owner: string
  departmentId: string | null
  department: string | null
  draft: Draft
  repeats: Rhythm | null
  startsOn: Day | null
  nextOn: Day | null
  sendsItself: boolean
  neededAfter: number
}
const TEMPLATE = {
  id: t.id,
  version: t.version,
  name: t.name,
  ownerId: t.ownerId,
  owner: p.name,
  departmentId: t.departmentId,
  department: d.name,
  draft: t.draft,
  repeats: t.repeats,
  startsOn: t.startsOn,
  nextOn: t.nextOn,
  sendsItself: t.sendsItself,
  neededAfter: t.neededAfter,
}
const complete = (t: TemplateRow): TemplateRow => ({ ...t, draft: completeDraft(t.draft) })

/** A person's own templates and those shared with departments. */
export async function listTemplateRows(
  tx: Tx,
  personId: string,
  departmentIds: readonly string[],
): Promise<TemplateRow[]> {
  return (
    await read(
      tx,
      { ...TEMPLATE },
      sql`from ${t} join ${p} on ${p.id} = ${t.ownerId} left
      join ${d} on ${d.id} = ${t.departmentId}
    where ${t.ownerId} = ${personId} or ${t.departmentId} = any(${sql.param([...departmentIds])}::uuid[])
      order by ${t.ownerId} <> ${personId}, ${t.name}, ${t.id}`,
    )
  ).map(complete)
}

/** A template; `lock` takes its row. */
export async function findTemplate(tx: Tx, id: string, lock = false): Promise<TemplateRow | null> {
  const found = await readOne(
    tx,
    { ...TEMPLATE },
    sql`from ${t} join ${p} on ${p.id} = ${t.ownerId} left
      join ${d} on ${d.id} = ${t.departmentId} where ${t.id} = ${id} ${lock ? sql`for update of t` : sql``}`,
  )
  return found === null ? null : complete(found)
}

/** Templates whose day has come. */
export function listDueTemplates(tx: Tx, today: Day): Promise<{ id: string }[]> {
  return read(
    tx,
    { id: template.id },
    sql`from ${template} where ${template.nextOn} <= ${today} order by ${template.nextOn}, ${template.id} limit 500`,
  )
}

/** The budget line of a year for each of some of any year: the same department, account and project. */
export async function findBudgetLinesOfYear(
  tx: Tx,
  ids: readonly string[],
  year: number,
): Promise<Map<string, string>> {
  const found = await read(
    tx,
    { was: old.id, now: same.id },
    sql`from ${old} join ${same} on ${same.departmentId} = ${old.departmentId}
      and ${same.accountCode} = ${old.accountCode}
      and ${same.projectCode} is not distinct from ${old.projectCode} and ${same.fiscalYear} = ${year}
    where ${old.id} = any(${sql.param([...ids])}::uuid[])`,
  )
  return new Map(found.map((f) => [f.was, f.now]))
}

export async function readSupplierNames(tx: Tx, ids: readonly string[]): Promise<Record<string, string>> {
  const found =
    ids.length === 0
      ? []
      : await read(
          tx,
          { id: supplier.id, name: supplier.name },
          sql`from ${supplier} where ${supplier.id} = any(${sql.param([...ids])}::uuid[])`,
        )
  return Object.fromEntries(found.map((s) => [s.id, s.name]))
}
