import { addDays, dayOf, type Day } from '#core/base/day'
import { BLANK_DRAFT } from '#core/requisition/draft'
import { actsAsOwner } from '#core/requisition/moves'
import type { RaiseChoices } from '#shared/contract/requisition'
import type { DraftFactsWire } from '#shared/contract/draft-facts'
import type { Context } from '../context'
import { listDepartments, listOpenDepartments, listShipTos } from '../people/place-reads'
import { listRaisedFor } from '../people/person-reads'
import { listHolidays, requireOrganisation } from '../settings/reads'
import { gatherDraftFacts } from './draft-facts'
import { findRequisition, type RequisitionRow } from './reads'

/** What there is to choose from when raising. */
export async function readChoices({ tx, now, actor }: Context): Promise<RaiseChoices> {
  const { timeZone, newSuppliers } = await requireOrganisation(tx)
  const today = dayOf(now, timeZone)
  const people = await listRaisedFor(tx, actor, today)
  const own = await listOpenDepartments(tx, actor.id)
  const theirs = new Set(people.flatMap((p) => p.departmentIds))
  const others = (await listDepartments(tx)).filter(
    (d) => !d.retired && theirs.has(d.id) && !own.some((o) => o.id === d.id),
  )
  return {
    newSuppliers,
    departments: [...own, ...others],
    shipTos: await listShipTos(tx),
    people,
    holidays: await listHolidays(tx, today, addDays(today, 400)),
  }
}

export interface FactsQuery {
  readonly departmentId?: string | undefined
  readonly accountingDate?: Day | undefined
  /** For whom it is raised, while whoever raises it chooses. */
  readonly ownerId?: string | undefined
  /** Where it is kept already. */
  readonly requisitionId?: string | undefined
}

/** The facts of one draft that one may write, by its department and accounting date. */
export async function readDraftFacts(ctx: Context, q: FactsQuery): Promise<DraftFactsWire> {
  const kept = q.requisitionId === undefined ? null : await findRequisition(ctx.tx, q.requisitionId)
  const theirs = kept !== null && actsAsOwner(kept, ctx.actor.id) ? kept : null
  const draft = {
    ...(theirs?.draft ?? BLANK_DRAFT),
    departmentId: q.departmentId ?? null,
    accountingDate: q.accountingDate ?? null,
  }
  return gatherDraftFacts(
    ctx.tx,
    draft,
    { id: theirs?.id ?? null, sentFor: theirs?.sentDraft?.departmentId ?? null, ...(await whoseDraft(ctx, q, theirs)) },
    ctx.now,
    false,
  )
}

/** Who owns and who raised it: as it is kept, or as whoever raises it chooses among those they may raise for. */
async function whoseDraft(
  { tx, now, actor }: Context,
  q: FactsQuery,
  theirs: RequisitionRow | null,
): Promise<{ ownerId: string; raisedById: string }> {
  const who = { ownerId: theirs?.ownerId ?? actor.id, raisedById: theirs?.raisedById ?? actor.id }
  if (q.ownerId === undefined || who.raisedById !== actor.id || (theirs !== null && theirs.number !== null)) return who
  const { timeZone } = await requireOrganisation(tx)
  const known = await listRaisedFor(tx, actor, dayOf(now, timeZone))
  return { ...who, ownerId: known.find((p) => p.id === q.ownerId)?.id ?? who.ownerId }
}
