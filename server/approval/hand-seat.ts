import type { HandedHow } from '#core/approval/handed'
import type { Context } from '../context'
import type { DocumentHead } from '../document/kind'
import { forbidden } from '../http/problem'
import { requireHere } from '../people/find-people'
import type { Decidable } from './decidable'
import { handPlace } from './hand-place'
import { findOpenSeat, findRoute } from './reads'

/** Has somebody decide in the place of whoever acts, before them, or as well; it can be called back until they do. */
export async function handSeat<D extends DocumentHead>(
  ctx: Context,
  kind: Decidable<D>,
  id: string,
  wish: { readonly how: HandedHow; readonly toId: string; readonly comment: string },
): Promise<{ id: string; handingId: string }> {
  const document = await kind.lockFor(ctx, id, null, 'handOn')
  const seat = await findOpenSeat(ctx.tx, id, ctx.actor.id)
  const row = await findRoute(ctx.tx, id)
  if (seat === null || row === null) throw forbidden('This does not wait for you.')
  const handingId = await handPlace(ctx, kind, document, row, {
    ...{ how: wish.how, byId: seat.forId ?? ctx.actor.id, forId: seat.forId },
    ...{ to: await requireHere(ctx, wish.toId), comment: wish.comment },
  })
  return { id, handingId }
}
