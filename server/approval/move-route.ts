import type { Progress } from '#core/approval/progress'
import type { Route } from '#core/approval/route'
import { dayOf } from '#core/base/day'
import type { Context } from '../context'
import type { DocumentHead } from '../document/kind'
import { tell } from '../document/tell'
import { listHolders } from '../people/person-reads'
import { requireOrganisation } from '../settings/reads'
import { routeStateOf } from './open-route'
import type { RouteRow } from './reads'
import { type Asked, updateRoute, writeSeats } from './store'

/**
 * Writes where a route stands now, with a new one where it was worked out again, and says who is newly asked. Where
 * from now on nobody is found who may decide, administrators are told: only its number, since they need not see it.
 */
export async function moveRoute(
  ctx: Context,
  document: Pick<DocumentHead, 'id' | 'kind' | 'number' | 'title'>,
  before: Pick<RouteRow, 'id' | 'state'>,
  progress: Progress,
  fresh?: { readonly route: Route; readonly policyId: string },
): Promise<Asked[]> {
  const state = routeStateOf(progress)
  await updateRoute(ctx.tx, before.id, { state, ...fresh })
  const asked = await writeSeats(ctx.tx, before.id, document.id, progress, ctx.now)
  if (state === 'held' && before.state !== 'held') {
    const { timeZone } = await requireOrganisation(ctx.tx)
    for (const { id } of await listHolders(ctx.tx, 'administrator', dayOf(ctx.now, timeZone)))
      await tell(ctx, id, document, { code: 'held', number: document.number ?? document.title }, { path: '/away' })
  }
  return asked
}
