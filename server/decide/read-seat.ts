import { nextAfter } from '#core/approval/progress'
import type { DecisionSeat } from '#shared/contract/decide'
import { listHandings } from '../approval/handing-reads'
import { findOpenSeat, readDecisions, type RouteRow } from '../approval/reads'
import { seatViews } from '../approval/seat-views'
import type { Context } from '../context'
import type { DocumentHead } from '../document/kind'
import { listRemarks } from '../document/reads'
import { findPersonName } from '../people/person-reads'

/** Who decides on a document and how far that is, for a reader: what waits for them, and what an approval leads to. */
export async function readSeat(
  ctx: Context,
  { id, ownerId, state }: Pick<DocumentHead, 'id' | 'ownerId' | 'state'>,
  route: RouteRow,
  /** How its owner is called, the budget lines that pay by their names, and the base currency. */
  said: { readonly owner: string; readonly payers: ReadonlyMap<string, string>; readonly currency: string },
): Promise<DecisionSeat> {
  const { tx, actor } = ctx
  const { standing } = await readDecisions(tx, id)
  const seat = await findOpenSeat(tx, id, actor.id)
  const after = nextAfter(route.route, standing, { actorId: actor.id, forId: seat?.forId ?? null })
  const seats = await seatViews(ctx, route, ownerId === actor.id ? 'you' : said.owner, said.payers, said.currency)
  const nameOf = new Map(seats.map((s) => [s.actorId, s.name]))
  return {
    held: route.state === 'held',
    route: seats,
    remarks: await listRemarks(tx, id),
    mine: seat !== null,
    handed: (state === 'in approval' ? await listHandings(tx, id) : [])
      .filter((h) => h.actorId === actor.id || h.byId === actor.id)
      .map((h) => ({ id: h.id, how: h.how, to: h.toName })),
    forName: seat?.forId == null ? null : await findPersonName(tx, seat.forId),
    afterApproval: { state: after.state, next: [...new Set(after.open.map((s) => nameOf.get(s.actorId) ?? ''))] },
  }
}
