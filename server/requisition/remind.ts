import { waysOf } from '#shared/words/ways'
import { dayOf } from '#core/base/day'
import { wasLongAgo } from '#core/requisition/remind'
import { decidePath } from '../approval/decidable'
import { listOpenActors } from '../approval/reads'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { tell } from '../document/tell'
import { refused } from '../http/problem'
import { listHolders } from '../people/person-reads'
import { requireOrganisation } from '../settings/reads'
import type { RequisitionRow } from './reads'
import { requireMove } from './require'
import { setReminded } from './store'

/** Reminds whoever a requisition waits for: those asked to decide, or the buyers of its part. At most once a day. */
export async function remind(ctx: Context, id: string): Promise<{ names: string[] }> {
  const kept = await requireMove(ctx, id, null, 'remind')
  const { timeZone } = await requireOrganisation(ctx.tx)
  const today = dayOf(ctx.now, timeZone)
  if (kept.remindedAt !== null && !wasLongAgo(kept.remindedAt, ctx.now.toISOString()))
    throw refused(
      [
        `They were reminded ${waysOf(ctx.actor.locale).moment(kept.remindedAt, timeZone, today)}; once a day is ` +
          `enough.`,
      ],
      {},
      'reminded',
    )
  const decides = kept.state === 'in approval'
  const asked = decides ? await listOpenActors(ctx.tx, id) : await listBuyersOf(ctx, kept, today)
  if (asked.length === 0)
    throw refused([
      decides
        ? 'Nobody is found who may decide; an administrator has to name somebody.'
        : 'There is no buyer for this department; tell an administrator.',
    ])
  await setReminded(ctx.tx, id, ctx.now)
  await appendEvent(ctx, {
    type: 'reminded',
    subjectKind: 'requisition',
    subjectId: id,
    after: { names: asked.map((a) => a.name) },
  })
  const of = decides ? 'decision' : 'order'
  for (const { id: personId } of asked)
    await tell(
      ctx,
      personId,
      kept,
      { code: 'reminded', by: ctx.actor.name, number: kept.number, title: kept.title, of },
      { path: decides ? decidePath(id) : '/desk' },
    )
  return { names: asked.map((a) => a.name) }
}

/** The buyers of a requisition's part. */
export function listBuyersOf(
  { tx }: Pick<Context, 'tx'>,
  kept: RequisitionRow,
  today: string,
): Promise<{ id: string; name: string }[]> {
  return listHolders(tx, 'buyer', today, kept.draft)
}
