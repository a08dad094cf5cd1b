import { addDays, dayOf, type Day } from '#core/base/day'
import { type RaiseChoices } from '#shared/contract/requisition'
import { type DraftFactsWire } from '#shared/contract/draft-facts'
import { type Context } from '../context'
import { listOpenDepartments, listRaisedFor, listShipTos } from '../people/reads'
import { listHolidays, requireOrganisation } from '../settings/reads'
import { gatherDraftFacts } from './draft-facts'

/** What there is to choose from when raising. */
export async function readChoices({ tx, now, actor }: Context): Promise<RaiseChoices> {
  const { timeZone } = await requireOrganisation(tx)
  const today = dayOf(now, timeZone)
  return {
    departments: await listOpenDepartments(tx, actor.id), shipTos: await listShipTos(tx),
    people: await listRaisedFor(tx, actor.id, today),
    holidays: await listHolidays(tx, today, addDays(today, 400)),
  }
}

/** The facts of one draft of one's own, by its department and accounting date. */
export async function readDraftFacts({ tx, now, actor }: Context, q: { readonly departmentId?: string | undefined; readonly accountingDate?: Day | undefined; readonly ownerId?: string | undefined }): Promise<DraftFactsWire> {
  const draft = {
    kind: 'goods', title: '', departmentId: q.departmentId ?? null, shipToId: null, shipToDetail: '', needBy: null, why: '', overBudgetReason: '',
    accountingDate: q.accountingDate ?? null, lines: [],
  }
  const { timeZone } = await requireOrganisation(tx)
  const known = q.ownerId === undefined ? [] : await listRaisedFor(tx, actor.id, dayOf(now, timeZone))
  const ownerId = known.find((p) => p.id === q.ownerId)?.id ?? actor.id
  return gatherDraftFacts(tx, draft, { ownerId, raisedById: actor.id }, now, false)
}
