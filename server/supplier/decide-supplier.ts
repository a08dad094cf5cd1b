import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { forbidden, invalid, notFound, refused } from '../http/problem'
import { tellPerson } from '../people/tell-person'
import { raiseList } from '../settings/store'
import { findProposal } from './reads'
import { writeStanding } from './record-store'

/** Approves or refuses a proposed supplier; nobody their own. Who proposed it hears of it. */
export async function decideSupplier(ctx: Context, id: string, accept: boolean, reason: string): Promise<void> {
  const p = await findProposal(ctx.tx, id, true)
  if (p === null) throw notFound('This supplier')
  if (p.standing !== 'proposed') throw refused([`${p.name} is ${p.standing} already.`], {}, 'wrong-state')
  if (p.proposedById === ctx.actor.id)
    throw forbidden('Nobody approves a supplier that they proposed themselves; ask a colleague in finance.')
  if (!accept && reason.trim() === '')
    throw invalid('Say why it is refused: whoever proposed it reads it.', [{ field: 'reason', message: 'is empty' }])
  const why = { reason: accept ? '' : reason.trim(), since: ctx.now, until: null }
  await writeStanding(ctx.tx, id, accept ? 'active' : 'refused', why)
  if (accept) await raiseList(ctx.tx, 'suppliers')
  await appendEvent(ctx, {
    type: accept ? 'approved' : 'refused',
    subjectKind: 'supplier',
    subjectId: id,
    before: { standing: p.standing },
    after: { standing: accept ? 'active' : 'refused', reason },
  })
  if (p.proposedById !== null) {
    await tellPerson(
      ctx,
      p.proposedById,
      { kind: 'supplier', id },
      { code: 'supplier-decided', by: ctx.actor.name, name: p.name, accepted: accept, reason: reason.trim() },
      { path: `/suppliers/${id}` },
    )
  }
}
