import { may } from '#core/people/rights'
import type { BudgetEntryView } from '#shared/contract/budget'
import type { Context } from '../context'
import { notFound } from '../http/problem'
import { requireOrganisation } from '../settings/reads'
import { findLineYear, listEntries, listVisibleLines } from './reads'

const PAGE = 100

/**
 * Every entry behind a line's figures. The amounts are for whoever sees the line; what each document is
 * about only for its holder and those who see all budgets.
 */
export async function listBudgetEntries(
  { tx, actor }: Context,
  budgetLineId: string,
  before: number | undefined,
): Promise<{ entries: BudgetEntryView[]; next: number | null; currency: string }> {
  const { baseCurrency } = await requireOrganisation(tx)
  const year = await findLineYear(tx, budgetLineId)
  const all = may(actor.grants, 'see all budgets')
  const line =
    year === null
      ? undefined
      : (await listVisibleLines(tx, actor.id, all, year, baseCurrency)).find((l) => l.id === budgetLineId)
  if (line === undefined) throw notFound('This budget line')
  const found = await listEntries(tx, budgetLineId, before ?? null, PAGE + 1)
  const open = all || line.holderId === actor.id
  const entries = found
    .slice(0, PAGE)
    .map((e) => (open ? { ...e, visible: true } : { ...e, title: '', person: null, number: null, visible: false }))
  return { entries, next: found.length > PAGE ? (entries.at(-1)?.seq ?? null) : null, currency: baseCurrency }
}
