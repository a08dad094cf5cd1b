import { addDays, dayOf, type Day } from '#core/base/day'
import { type RaiseChoices } from '#shared/contract/requisition'
import { type DraftFactsWire } from '#shared/contract/draft-facts'
import { type Context } from '../context'
import { listOpenDepartments, listShipTos } from '../people/reads'
import { listHolidays, requireOrganisation } from '../settings/reads'
import { gatherDraftFacts } from './draft-facts'

/** What there is to choose from when raising. */
export async function readChoices({ tx, now, actor }: Context): Promise<RaiseChoices> {
  const { timeZone } = await requireOrganisation(tx)
  const today = dayOf(now, timeZone)
  return {
    departments: await listOpenDepartments(tx, actor.id), shipTos: await listShipTos(tx),
    holidays: await listHolidays(tx, today, addDays(today, 400)),
  }
}

/** The facts of one draft of one's own, by its department and accounting date. */
export function readDraftFacts({ tx, now, actor }: Context, q: { readonly departmentId?: string | undefined; readonly accountingDate?: Day | undefined }): Promise<DraftFactsWire> {
  const draft = {
    kind: 'goods', title: '', departmentId: q.departmentId ?? null, shipToId: null, shipToDetail: '', needBy: null, why: '', overBudgetReason: '',
    accountingDate: q.accountingDate ?? null, lines: [],
  }
  return gatherDraftFacts(tx, draft, { ownerId: actor.id, raisedById: actor.id }, now, false)
}
