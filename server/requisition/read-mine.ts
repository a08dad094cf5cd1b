import type { MineRow } from '#shared/contract/mine'
import type { Context } from '../context'
import { readMinePage, sumMine } from './mine-page'
import { countMine, type MineQuery } from './mine-reads'

/** A page of Mine with its sums. */
export async function readMine(
  ctx: Context,
  query: MineQuery,
): Promise<{
  rows: MineRow[]
  next: string | null
  total: number
  waiting: number
  fitting: number
  currency: string
  sum: string
  openSum: string
  now: string
}> {
  const page = await readMinePage(ctx, query)
  const counts = await countMine(ctx.tx, ctx.actor.id)
  return { ...page, ...counts, ...(await sumMine(ctx, query)), now: ctx.now.toISOString() }
}
