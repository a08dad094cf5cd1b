import { moneyOf, sum, times, type Money } from '#core/base/money'
import { draftWorth } from '#core/requisition/draft-worth'
import type { MineRow } from '#shared/contract/mine'
import type { Context } from '../context'
import type { Terms } from '../settings/reads'
import { listMine, listMineAmounts, listMineLines, listMineUnsent, type MineLine, type MineQuery } from './mine-reads'

/** A page of Mine, each with what it was sent as, or with what its draft comes to now. */
export async function readMinePage(
  ctx: Context,
  query: MineQuery,
  terms: Terms,
): Promise<{ rows: MineRow[]; next: string | null }> {
  const page = await listMine(ctx.tx, ctx.actor.id, query)
  const worth = await worthOf(ctx, page.rows, terms)
  return { ...page, rows: page.rows.map((r) => ({ ...r, amount: worth.get(r.id)?.amount ?? null })) }
}

/** What everything that fits a query comes to, and what of it is still open, in the base currency. */
export async function sumMine(
  ctx: Context,
  query: MineQuery,
  terms: Terms,
): Promise<{ fitting: number; sum: string; openSum: string }> {
  const currency = terms.organisation.baseCurrency
  const sent = await listMineAmounts(ctx.tx, ctx.actor.id, query)
  const unsent = await listMineUnsent(ctx.tx, ctx.actor.id, query)
  const worth = await worthOf(
    ctx,
    unsent.map((r) => ({ id: r.id, amount: null })),
    terms,
  )
  const total = (counts: (r: { readonly isOpen: boolean }) => boolean) =>
    sum(
      [
        ...sent.filter(counts).map((r) => times(moneyOf(r.amount, currency), r.count)),
        ...unsent.filter(counts).flatMap((r) => worth.get(r.id) ?? []),
      ],
      currency,
    ).amount
  return {
    fitting: sent.reduce((n, r) => n + r.count, unsent.length),
    sum: total(() => true),
    openSum: total((r) => r.isOpen),
  }
}

/** Amounts as they were sent; those of what was never sent are worked out from its lines, at the rates of today. */
async function worthOf(
  { tx }: Context,
  rows: readonly { readonly id: string; readonly amount: string | null }[],
  { organisation, perBase }: Terms,
): Promise<Map<string, Money>> {
  const currency = organisation.baseCurrency
  const rates = new Map(perBase)
  const drafts = rows.flatMap((r) => (r.amount === null ? [r.id] : []))
  const lines = new Map<string, MineLine[]>(drafts.map((id) => [id, []]))
  for (const line of await listMineLines(tx, drafts)) lines.get(line.requisitionId)?.push(line)
  return new Map(
    rows.flatMap((r): [string, Money][] => {
      if (r.amount !== null) return [[r.id, moneyOf(r.amount, currency)]]
      const own = lines.get(r.id) ?? []
      return own.length === 0 ? [] : [[r.id, draftWorth(own, rates, currency)]]
    }),
  )
}
