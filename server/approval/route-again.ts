import { isDeepStrictEqual } from 'node:util'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import type { DocumentHead } from '../document/kind'
import { tell } from '../document/tell'
import { notifyChange } from '../live/notify'
import { decidePath, type Decidable } from './decidable'
import { makeAgain } from './make-again'
import { moveRoute } from './move-route'
import { findRoute } from './reads'

/**
 * Works the steps that are not yet decided out anew, after people, absences or policy changed. What was sent stays
 * as it was, and so do the decisions made. Nothing is written when nothing changes. The document is locked.
 */
export async function routeAgain<D extends DocumentHead>(
  ctx: Context,
  kind: Decidable<D>,
  document: D,
): Promise<boolean> {
  const { id } = document
  const route = await findRoute(ctx.tx, id)
  if (route === null || document.state !== 'in approval') return false
  const { route: fresh, policyId, progress } = await makeAgain(ctx, kind, document, route)
  // Compared as values: the database keeps the route's fields in an order of its own.
  if (isDeepStrictEqual(JSON.parse(JSON.stringify([fresh.steps, fresh.held])), [route.route.steps, route.route.held]))
    return false
  const asked = await moveRoute(ctx, document, route, progress, { route: fresh, policyId })
  await appendEvent(ctx, {
    type: 'routed again',
    subjectKind: kind.name,
    subjectId: id,
    after: { open: progress.open.map((s) => s.actorId) },
  })
  if (progress.state === 'approved') await kind.takeOutcome(ctx, document, { state: 'approved', decisionId: null })
  for (const { actorId } of asked) {
    await tell(
      ctx,
      actorId,
      document,
      { code: 'to-decide-anew', number: document.number, title: document.title },
      { path: decidePath(id) },
    )
  }
  await notifyChange(ctx.tx, { kind: kind.name, id })
  return true
}
