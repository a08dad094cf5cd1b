import { isCurrency } from '#core/base/currency'
import { dayOf } from '#core/base/day'
import type { Draft } from '#core/requisition/draft'
import { actsAsOwner } from '#core/requisition/moves'
import type { Context } from '../context'
import { setOwner } from '../document/store'
import { asSentence } from '../http/as-sentence'
import { forbidden, invalid, stale } from '../http/problem'
import { notifyChange } from '../live/notify'
import { listRaisedFor } from '../people/person-reads'
import { requireOrganisation } from '../settings/reads'
import { findRequisition } from './reads'
import { requireMove } from './require'
import { insertRequisition, listForeignLines, updateDraft } from './store'

/** Keeps a new draft under an id that its author's page chose. Saving a draft writes no event. */
export async function createDraft(
  ctx: Context,
  id: string,
  draft: Draft,
  ownerId: string | null = null,
): Promise<{ id: string; version: number }> {
  const before = await findRequisition(ctx.tx, id)
  if (before !== null) {
    if (!actsAsOwner(before, ctx.actor.id)) throw forbidden('This number of a draft belongs to somebody else.')
    throw stale('this draft is kept already, perhaps by another tab')
  }
  await checkLines(ctx, id, draft)
  if (ownerId !== null) await requireRaisedFor(ctx, ownerId)
  await asSentence(
    () => insertRequisition(ctx.tx, id, { ownerId: ownerId ?? ctx.actor.id, raisedById: ctx.actor.id }, draft, ctx.now),
    OF_DRAFTS,
  )
  return { id, version: 1 }
}

/**
 * Writes a draft over what was kept of it, at the version its author saw. For whom it is may change until it is sent
 * first.
 */
export async function saveDraft(
  ctx: Context,
  id: string,
  version: number,
  draft: Draft,
  ownerId: string | null = null,
): Promise<{ id: string; version: number }> {
  const kept = await requireMove(ctx, id, version, 'edit')
  await checkLines(ctx, id, draft)
  const changesOwner = ownerId !== null && ownerId !== kept.ownerId
  if (changesOwner) {
    if (kept.raisedById !== ctx.actor.id || kept.number !== null)
      throw forbidden(
        'For whom it is can be changed only by whoever raises it, before it is sent; after that its owner hands ' +
          'it over.',
      )
    await requireRaisedFor(ctx, ownerId)
    await setOwner(ctx.tx, id, ownerId, ctx.now)
  }
  await asSentence(() => updateDraft(ctx.tx, id, kept.draft, draft, ctx.now), OF_DRAFTS)
  await notifyChange(ctx.tx, { kind: 'requisition', id })
  return { id, version: kept.version + (changesOwner ? 2 : 1) }
}

/** One raises for oneself and for people of the departments that are open to one. */
async function requireRaisedFor({ tx, now, actor }: Context, ownerId: string): Promise<void> {
  const { timeZone } = await requireOrganisation(tx)
  if (!(await listRaisedFor(tx, actor, dayOf(now, timeZone))).some((p) => p.id === ownerId))
    throw forbidden('You may raise for people of your departments only.')
}

async function checkLines(ctx: Context, id: string, draft: Draft): Promise<void> {
  const ids = draft.lines.map((l) => l.id)
  if (new Set(ids).size !== ids.length)
    throw invalid('Two lines carry the same id.', [{ field: 'lines', message: 'ids must differ' }])
  for (const [i, l] of draft.lines.entries()) {
    if (!isCurrency(l.currency))
      throw invalid('A line has a currency that does not exist.', [
        { field: `lines.${i}.currency`, message: 'not a currency' },
      ])
  }
  if (ids.length > 0 && (await listForeignLines(ctx.tx, id, ids)).length > 0)
    throw invalid('A line carries an id that another requisition uses.')
}

/** A draft that names something unknown is refused with a sentence, whatever it names. */
const OF_DRAFTS = {
  namesNothing: 'The draft names a kind, department, place, job, item, supplier or budget line that does not exist.',
  tooLarge: 'A number in the draft is too large to be kept.',
}
