import type { MineRow } from '#shared/contract/mine'
import type { Context } from '../context'
import { requireTerms } from '../settings/reads'
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
  const terms = await requireTerms(ctx.tx, ctx.now)
  return {
    ...(await readMinePage(ctx, query, terms)),
    ...(await countMine(ctx.tx, ctx.actor.id)),
    ...(await sumMine(ctx, query, terms)),
    currency: terms.organisation.baseCurrency,
    now: ctx.now.toISOString(),
  }
}
