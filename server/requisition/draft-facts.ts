import { fiscalPeriod } from '#core/base/day'
import { isId } from '#core/base/id'
import type { Person } from '#core/people/person'
import type { Draft } from '#core/requisition/draft'
import { attachedKinds, type AttachedAs } from '#core/requisition/rules'
import type { DraftFactsWire } from '#shared/contract/draft-facts'
import { peopleNamedBy, requirePolicy } from '../approval/reads'
import { listPayingLines, lockBudgetLines } from '../budget/reads'
import type { Tx } from '../db/client'
import { listBranch, listOpenDepartments } from '../people/place-reads'
import { lockPerson, reachPeople } from '../people/person-reads'
import { requireTerms } from '../settings/reads'
import { inForce, listJobs, readForm, readNamed } from './form-reads'
import { listAttachments } from '../document/reads'
import { listOwnRecent } from './own-recent-reads'

/** Whose a draft is, and where it is kept; null while it is not kept yet. */
export interface DraftOf {
  readonly id: string | null
  readonly ownerId: string
  readonly raisedById: string
  /** The department that it was last sent for: it stays open to it, whoever owns it now. */
  readonly sentFor: string | null
  /** What its files are, where they were read already. */
  readonly attached?: readonly AttachedAs[]
}

/**
 * Gathers the facts that a draft's verdict rests on. For sending (`lock`) the budget lines it names are
 * locked and no others are read; for the page, all lines of its department come along to choose from.
 */
export async function gatherDraftFacts(
  tx: Tx,
  draft: Draft,
  of: DraftOf,
  now: Date,
  lock: boolean,
): Promise<DraftFactsWire> {
  const { organisation, today, taxCodes, perBase, closedPeriods } = await requireTerms(tx, now, draft.accountingDate)
  const { year } = fiscalPeriod(draft.accountingDate ?? today, organisation.fiscalStartMonth)
  const named = [...new Set(draft.lines.flatMap((l) => l.codings.map((c) => c.budgetLineId)))]
  const policy = await requirePolicy(tx, today)
  // Of two that are sent at the same moment one sees the other.
  if (lock && policy.ownLimitDays !== null) await lockPerson(tx, of.ownerId)
  const departments = await listOpenDepartments(tx, of.ownerId)
  const branch = draft.departmentId === null ? [] : await listBranch(tx, draft.departmentId)
  const form = await readForm(tx, today)
  const ids = (key: 'supplierId' | 'itemId' | 'jobId') => [...new Set(draft.lines.flatMap((l) => l[key] ?? []))]
  const { suppliers, items } = await readNamed(tx, ids('supplierId'), ids('itemId'))
  const departmentIds = [...new Set([...departments.map((d) => d.id), ...(of.sentFor === null ? [] : [of.sentFor])])]
  const isOpen = draft.departmentId !== null && departmentIds.includes(draft.departmentId)
  const budgetLines = lock
    ? await lockBudgetLines(tx, named, organisation.baseCurrency)
    : isOpen
      ? await listPayingLines(tx, draft.departmentId, year, named, organisation.baseCurrency)
      : // Of a department that is not open nothing is told.
        []
  const holders = budgetLines.flatMap((l) => (l.holderId === null ? [] : [l.holderId]))
  const reached = await reachPeople(
    tx,
    [...new Set([of.ownerId, of.raisedById, ...peopleNamedBy(policy), ...holders])],
    organisation.baseCurrency,
    today,
  )
  const inJobFields = form.ownFields
    .filter((f) => f.type === 'job')
    .flatMap((f) => [draft.own, ...draft.lines.map((l) => l.own)].flatMap((own) => own[f.id] ?? []))
  const jobs = await listJobs(
    tx,
    [...new Set([...(draft.jobId === null ? [] : [draft.jobId]), ...ids('jobId'), ...inJobFields])].filter(isId),
    lock,
  )
  return {
    today,
    baseCurrency: organisation.baseCurrency,
    fiscalStartMonth: organisation.fiscalStartMonth,
    closedPeriods: [...closedPeriods],
    ownerId: of.ownerId,
    raisedById: of.raisedById,
    ownRecent: await listOwnRecent(tx, of, policy.ownLimitDays, organisation, today),
    departmentIds,
    branch,
    // A line of another department or year is no longer an answer, even if the draft still names it.
    budgetLines: budgetLines.filter((l) => l.departmentId === draft.departmentId && l.fiscalYear === year),
    taxCodes: [...taxCodes],
    perBase: perBase.map(([c, f]) => [c, f]),
    policy,
    people: lock ? reached.people : reached.people.map((p) => asColleague(p, of.ownerId)),
    absences: reached.absences,
    suppliers,
    items,
    jobs,
    holidays: form.holidays,
    ownFields: inForce(form.ownFields),
    rules: form.rules,
    kinds: inForce(form.kinds),
    attached: [...(of.attached ?? (of.id === null ? [] : attachedKinds(await listAttachments(tx, of.id))))],
  }
}

/** What of a person the page of a draft has to know: whether they decide, and of its owner what passes at once. */
function asColleague(person: Person, ownerId: string): Person {
  return { ...person, orderingLimit: null, ownLimit: person.id === ownerId ? person.ownLimit : null }
}
