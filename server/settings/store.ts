import { eq, sql } from 'drizzle-orm'
import type { NewSupplierPolicy } from '#core/requisition/form'
import type { Tx } from '../db/client'
import type { ListName } from '#core/lists/list'
import { keptList, numberSeries, organisation } from '../db/schema/settings'

/**
 * Takes the next number of a series and fiscal year, without gaps: the row stays locked until the
 * transaction ends, so this is called last. R-26-00412 is the 412th requisition of the year begun in 2026.
 */
export async function takeNumber(tx: Tx, series: string, fiscalYear: number): Promise<string> {
  const [taken] = await tx
    .insert(numberSeries)
    .values({ series, fiscalYear, last: 1 })
    .onConflictDoUpdate({
      target: [numberSeries.series, numberSeries.fiscalYear],
      set: { last: sql`${numberSeries.last} + 1` },
    })
    .returning({ last: numberSeries.last })
  if (taken === undefined) throw new Error('no number was given')
  return sayNumber(series, fiscalYear, taken.last)
}

/** A number of a series as it is written: R-26-00412. */
export const sayNumber = (series: string, fiscalYear: number, at: number): string =>
  `${series}-${String(fiscalYear % 100).padStart(2, '0')}-${String(at).padStart(5, '0')}`

/** Counts what is asked for with requisitions on by one version, with what holds for new suppliers. */
export async function raiseFormVersion(tx: Tx, newSuppliers: NewSupplierPolicy): Promise<void> {
  await tx
    .update(organisation)
    .set({ formVersion: sql`${organisation.formVersion} + 1`, newSuppliers })
    .where(eq(organisation.id, 1))
}

/** Raises the version of a list that was changed from elsewhere, its row locked: whoever has it open is told. */
export async function raiseList(tx: Tx, name: ListName): Promise<void> {
  await tx
    .insert(keptList)
    .values({ name, version: 2 })
    .onConflictDoUpdate({ target: keptList.name, set: { version: sql`${keptList.version} + 1` } })
}
