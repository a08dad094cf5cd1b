import { leftOf, type DrawnOn } from '#core/agreement/ceiling'
import { fiscalPeriod, type Day } from '#core/base/day'
import { zero } from '#core/base/money'
import { isId } from '#core/base/id'
import type { Person } from '#core/people/person'
import type { Draft } from '#core/requisition/draft'
import type { AgreementFacts } from '#core/requisition/line-agreement'
import { attachedKinds, type AttachedAs } from '#core/requisition/rules'
import type { DraftFactsWire } from '#shared/contract/draft-facts'
import { drawnOn, listOpenAgreementsWith } from '../agreement/reads'
import { peopleNamedBy, requirePolicy } from '../approval/reads'
import { holdersOf, listPayingLines, lockBudgetLines, type Payers } from '../budget/reads'
import type { Tx } from '../db/client'
import { listBranch, listOpenDepartments } from '../people/place-reads'
import { lockPerson, reachPeople } from '../people/person-reads'
import { requireTerms } from '../settings/reads'
import { inForce, listJobs, readForm, readNamed } from './form-reads'
import { listAttachments } from '../document/reads'
import { listOwnRecent } from './own-recent-reads'
import { reservedOf } from './reserved-of-agreements'

/** Whose a draft is, and where it is kept; null while it is not kept yet. */
export interface DraftOf {
  readonly id: string | null
  readonly ownerId: string
  readonly raisedById: string
  /** The department that it was last sent for: it stays open to it, whoever owns it now. */
  readonly sentFor: string | null
  /** What its files are, where they are read already. */
  readonly attached?: Promise<AttachedAs[]>
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
  const { named, jobIds, supplierIds, itemIds } = namedBy(draft)
  // What does not rest on another answer is asked together.
  const [terms, departments, branch, { suppliers, items }, attached] = await Promise.all([
    requireTerms(tx, now, draft.accountingDate),
    listOpenDepartments(tx, of.ownerId),
    draft.departmentId === null ? [] : listBranch(tx, draft.departmentId),
    readNamed(tx, supplierIds, itemIds),
    of.attached ?? (of.id === null ? [] : listAttachments(tx, of.id).then(attachedKinds)),
  ])
  const { organisation, today, taxCodes, perBase, closedPeriods } = terms
  const { year } = fiscalPeriod(draft.accountingDate ?? today, organisation.fiscalStartMonth)
  const [policy, form] = await Promise.all([requirePolicy(tx, now, today), readForm(tx, today)])
  const departmentIds = [...new Set([...departments.map((d) => d.id), ...(of.sentFor === null ? [] : [of.sentFor])])]
  const isOpen = draft.departmentId !== null && departmentIds.includes(draft.departmentId)
  const inJobFields = form.ownFields
    .filter((f) => f.type === 'job')
    .flatMap((f) => [draft.own, ...draft.lines.map((l) => l.own)].flatMap((own) => own[f.id] ?? []))
  const payers: Payers = { ids: named, departmentId: lock ? null : draft.departmentId, fiscalYear: year }
  // Of a department that is not open nothing is told.
  const holders = lock || isOpen ? holdersOf(payers) : undefined
  const [, budgetLines, reached, jobs, ownRecent, drawn] = await Promise.all([
    // Of two that are sent at the same moment one sees the other.
    lock && policy.ownLimitDays !== null ? lockPerson(tx, of.ownerId) : undefined,
    lock
      ? lockBudgetLines(tx, named, organisation.baseCurrency)
      : isOpen
        ? listPayingLines(tx, payers, organisation.baseCurrency)
        : [],
    reachPeople(tx, [of.ownerId, of.raisedById, ...peopleNamedBy(policy)], organisation.baseCurrency, today, holders),
    listJobs(tx, [...new Set([...jobIds, ...inJobFields])].filter(isId), lock),
    listOwnRecent(tx, of, policy.ownLimitDays, organisation, today),
    agreementsFor(tx, supplierIds, of.id, today),
  ])
  return {
    today,
    baseCurrency: organisation.baseCurrency,
    fiscalStartMonth: organisation.fiscalStartMonth,
    closedPeriods: [...closedPeriods],
    ownerId: of.ownerId,
    raisedById: of.raisedById,
    ownRecent,
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
    agreements: drawn,
    jobs,
    holidays: form.holidays,
    ownFields: inForce(form.ownFields),
    rules: form.rules,
    kinds: inForce(form.kinds),
    attached: [...attached],
  }
}

/** The agreements with some suppliers that may still be drawn on, with what stands on each besides a draft. */
async function agreementsFor(
  tx: Tx,
  supplierIds: readonly string[],
  draftId: string | null,
  today: Day,
): Promise<AgreementFacts[]> {
  const agreements = await listOpenAgreementsWith(tx, supplierIds, today)
  if (agreements.length === 0) return []
  const reserved = await reservedOf(tx, agreements, today, draftId)
  return agreements.map((a) => ({
    ...{ id: a.id, number: a.number, name: a.name, supplierId: a.supplierId, currency: a.currency },
    ...{ startsOn: a.startsOn, endsOn: a.endsOn, fixes: a.fixes, itemIds: a.itemIds },
    ...{ departmentIds: a.departmentIds, isClosed: a.isClosed, of: asLeft(drawnOn(a, reserved(a))) },
  }))
}

/** What of an agreement whoever asks has to know: what is left of it, and not how it came to that. */
function asLeft(of: DrawnOn): DrawnOn {
  const none = zero(of.drawn.currency)
  return { ...of, ceiling: leftOf(of), drawn: none, reserved: none, warnPercent: null }
}

/** Whatever a draft names, each once. */
function namedBy(draft: Draft) {
  const ids = (key: 'supplierId' | 'itemId' | 'jobId') => [...new Set(draft.lines.flatMap((l) => l[key] ?? []))]
  return {
    named: [...new Set(draft.lines.flatMap((l) => l.codings.map((c) => c.budgetLineId)))],
    jobIds: [...(draft.jobId === null ? [] : [draft.jobId]), ...ids('jobId')],
    supplierIds: ids('supplierId'),
    itemIds: ids('itemId'),
  }
}

/** What of a person the page of a draft has to know: whether they decide, and of its owner what passes at once. */
function asColleague(person: Person, ownerId: string): Person {
  return { ...person, orderingLimit: null, ownLimit: person.id === ownerId ? person.ownLimit : null }
}
