import { and, eq, sql } from 'drizzle-orm'
import type { Retention } from '#core/people/retention'
import type { Tx } from '../db/client'
import { read, readOne } from '../db/read'
import { fiscalPeriod, numberSeries, organisation } from '../db/schema/settings'

/** The version of who we are; locked, it is the right to change it until the transaction ends. */
export async function lockOrganisation(tx: Tx): Promise<number> {
  const o = organisation
  const found = await readOne(tx, { version: o.version }, sql`from ${o} where ${o.id} = 1 for no key update`)
  return found?.version ?? 1
}

export async function findOrganisationVersion(tx: Tx): Promise<number> {
  const o = organisation
  return (await readOne(tx, { version: o.version }, sql`from ${o} where ${o.id} = 1`))?.version ?? 1
}

/** Writes who we are, at the next version. */
export async function writeOrganisation(
  tx: Tx,
  version: number,
  {
    kept,
    ...said
  }: Pick<
    typeof organisation.$inferInsert,
    | 'name'
    | 'address'
    | 'letterhead'
    | 'mailFrom'
    | 'orderTolerancePercent'
    | 'orderToleranceAmount'
    | 'secondFactorFor'
  > & { readonly kept: Retention },
): Promise<void> {
  await tx
    .update(organisation)
    .set({
      ...said,
      version,
      keepSessionsDays: kept.sessions,
      keepNoticesDays: kept.notices,
      keepLettersDays: kept.letters,
      keepPeopleDays: kept.people,
    })
    .where(eq(organisation.id, 1))
}

/** Every period of every fiscal year as it stands at a moment, the newest year first. */
export function listPeriods(tx: Tx, now: Date) {
  const f = fiscalPeriod
  return read(
    tx,
    {
      year: f.year,
      period: f.period,
      from: f.fromDay,
      until: f.untilDay,
      closed: sql<boolean>`coalesce(${f.closedAt} <= ${now.toISOString()}, false)`,
    },
    sql`from ${f} order by ${f.year} desc, ${f.period}`,
  )
}

/** Closes a period from a moment on, or opens it; false where there is none. */
export async function setClosed(tx: Tx, year: number, period: number, closedAt: Date | null): Promise<boolean> {
  const changed = await tx
    .update(fiscalPeriod)
    .set({ closedAt })
    .where(and(eq(fiscalPeriod.year, year), eq(fiscalPeriod.period, period)))
    .returning({ year: fiscalPeriod.year })
  return changed.length > 0
}

/** Adds periods; those that are there already stay as they are. Answers with how many are new. */
export async function addPeriods(tx: Tx, periods: readonly (typeof fiscalPeriod.$inferInsert)[]): Promise<number> {
  const added = await tx
    .insert(fiscalPeriod)
    .values([...periods])
    .onConflictDoNothing()
    .returning({ period: fiscalPeriod.period })
  return added.length
}

/** The last number of each series and fiscal year, the newest year first. */
export function listSeries(tx: Tx) {
  const n = numberSeries
  return read(
    tx,
    { series: n.series, year: n.fiscalYear, last: n.last },
    sql`from ${n} order by ${n.fiscalYear} desc, ${n.series}`,
  )
}
