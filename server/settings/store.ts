import { sql } from 'drizzle-orm'
import type { NewSupplierPolicy } from '#core/requisition/form'
import type { Tx } from '../db/client'
import { row } from '../db/rows'

/**
 * Takes the next number of a series and fiscal year, without gaps: the row stays locked until the
 * transaction ends, so this is called last. R-26-00412 is the 412th requisition of the year begun in 2026.
 */
export async function takeNumber(tx: Tx, series: string, fiscalYear: number): Promise<string> {
  const taken = await row<{ last: number }>(
    tx,
    sql`
    insert into number_series (series, fiscal_year, last) values (${series}, ${fiscalYear}, 1)
    on conflict (series, fiscal_year) do update set last = number_series.last + 1
    returning last`,
  )
  if (taken === null) throw new Error('no number was given')
  return `${series}-${String(fiscalYear % 100).padStart(2, '0')}-${String(taken.last).padStart(5, '0')}`
}

/** Counts what is asked for with requisitions on by one version, with what holds for new suppliers. */
export async function raiseFormVersion(tx: Tx, newSuppliers: NewSupplierPolicy): Promise<void> {
  await tx.execute(
    sql`update organisation set form_version = form_version + 1, new_suppliers = ${newSuppliers} where id = 1`,
  )
}
