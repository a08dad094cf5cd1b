import { progressOf, type Progress } from '#core/approval/progress'
import { makeRoute, type Route } from '#core/approval/route'
import type { Context } from '../context'
import type { DocumentHead } from '../document/kind'
import type { Decidable } from './decidable'
import { judgeAgain } from './judge-again'
import { listApprovals, listLate, type RouteRow } from './reads'

/** The route of a document as it is worked out today, with the decisions made and what was handed on. */
export async function makeAgain<D extends DocumentHead>(
  ctx: Context,
  kind: Decidable<D>,
  document: D,
  row: RouteRow,
): Promise<{ readonly route: Route; readonly policyId: string; readonly progress: Progress }> {
  const { subject, policy, people, handed } = await judgeAgain(ctx, kind, document, row)
  const approvals = await listApprovals(ctx.tx, document.id)
  const late = await listLate(ctx.tx, row.id)
  const route = makeRoute(subject, policy, people, approvals, { late, handed })
  return { route, policyId: policy.id, progress: progressOf(route, approvals) }
}
