import type { MineRow } from '#shared/contract/mine'
import type { Context } from '../context'
import { requireOrganisation } from '../settings/reads'
import { listMine, sumMine, type MineQuery } from './mine-reads'

/** A page of Mine with its sums. */
export async function readMine(
  { tx, actor, now }: Context,
  query: MineQuery,
): Promise<{
  rows: MineRow[]
  next: string | null
  total: number
  waiting: number
  currency: string
  sum: string
  openSum: string
  now: string
}> {
  const { baseCurrency } = await requireOrganisation(tx)
  const page = await listMine(tx, actor.id, query)
  return { ...page, ...(await sumMine(tx, actor.id)), currency: baseCurrency, now: now.toISOString() }
}
