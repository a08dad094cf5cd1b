import { fiscalPeriod } from '#core/base/day'
import { type Draft } from '#core/requisition/draft'
import { type DraftFactsWire } from '#shared/contract/draft-facts'
import { peopleNamedBy, requirePolicy } from '../approval/reads'
import { listPayingLines, lockBudgetLines } from '../budget/reads'
import { type Tx } from '../db/client'
import { listBranch, listOpenDepartments, reachPeople } from '../people/reads'
import { requireTerms } from '../settings/reads'
import { listBlockedSuppliers } from './reads'

/**
 * Gathers the facts that a draft's verdict rests on. For sending (`lock`) the budget lines it names are
 * locked and no others are read; for the page, all lines of its department come along to choose from.
 */
export async function gatherDraftFacts(
  tx: Tx, draft: Draft, who: { readonly ownerId: string; readonly raisedById: string }, now: Date, lock: boolean,
): Promise<DraftFactsWire> {
  const { organisation, today, taxCodes, toBase, closedPeriods } = await requireTerms(tx, now, draft.accountingDate)
  const { year } = fiscalPeriod(draft.accountingDate ?? today, organisation.fiscalStartMonth)
  const named = [...new Set(draft.lines.flatMap((l) => l.codings.map((c) => c.budgetLineId)))]
  const policy = await requirePolicy(tx, today)
  const departments = await listOpenDepartments(tx, who.raisedById)
  const branch = draft.departmentId === null ? [] : await listBranch(tx, draft.departmentId)
  const blocked = await listBlockedSuppliers(tx)
  const budgetLines = lock
    ? await lockBudgetLines(tx, named, organisation.baseCurrency)
    : await listPayingLines(tx, draft.departmentId, year, named, organisation.baseCurrency)
  const holders = budgetLines.flatMap((l) => l.holderId === null ? [] : [l.holderId])
  const reached = await reachPeople(tx, [...new Set([who.ownerId, who.raisedById, ...peopleNamedBy(policy), ...holders])], organisation.baseCurrency, today)
  return {
    today, baseCurrency: organisation.baseCurrency, fiscalStartMonth: organisation.fiscalStartMonth, closedPeriods: [...closedPeriods],
    ownerId: who.ownerId, raisedById: who.raisedById, departmentIds: departments.map((d) => d.id), branch,
    // A line of another department or year is no longer an answer, even if the draft still names it.
    budgetLines: budgetLines.filter((l) => l.departmentId === draft.departmentId && l.fiscalYear === year),
    taxCodes: [...taxCodes], toBase: toBase.map(([c, f]) => [c, f]), blockedSuppliers: blocked.map((s) => s.id), policy, people: reached.people, absences: reached.absences,
  }
}
