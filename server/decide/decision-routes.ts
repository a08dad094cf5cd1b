import type { decideRoutes } from '#shared/contract/decide'
import { answerQuestion } from '../approval/answer-question'
import { askQuestion } from '../approval/ask-question'
import { callBack } from '../approval/call-back'
import { decide } from '../approval/decide'
import { handSeat } from '../approval/hand-seat'
import { takeBack } from '../approval/take-back'
import { withWhatHoldsNow } from '../document/holds-now'
import { forbidden, refused } from '../http/problem'
import { route } from '../http/route'
import { requireDecidable } from '../kinds'
import { approveChanged } from '../requisition/approve-changed'
import { readDecision } from './read-decision'

/** The routes by which documents are decided on, at the paths of a description of them. */
export const decisionRoutes = (at: Omit<typeof decideRoutes, 'listWaiting'>) => ({
  read: () => route(at.readDecision, ({ ctx, params }) => readDecision(ctx, params.id)),
  decide: () =>
    route(
      at.decideDocument,
      async ({ ctx, params, body, version }) => {
        if (body.by !== undefined && body.by !== ctx.actor.id)
          throw forbidden('It was decided by somebody else, who is not signed in here any more; decide it yourself.')
        if (body.changes.length > 0) {
          if (body.outcome !== 'approve') throw refused(['Only what is approved is changed with it.'])
          return approveChanged(ctx, params.id, version, body.changes, body.comment)
        }
        return decide(ctx, await requireDecidable(ctx, params.id), params.id, version, body.outcome, body.comment)
      },
      { again: ({ ctx, params }, first) => withWhatHoldsNow(ctx, params.id, first) },
    ),
  takeBack: () =>
    route(at.takeBackDecision, async ({ ctx, params }) =>
      takeBack(ctx, await requireDecidable(ctx, params.id), params.id, params.decisionId),
    ),
  ask: () =>
    route(at.askQuestion, async ({ ctx, params, body }) =>
      askQuestion(ctx, await requireDecidable(ctx, params.id), params.id, body.text, body.toId),
    ),
  answer: () =>
    route(at.answerQuestion, async ({ ctx, params, body }) =>
      answerQuestion(ctx, await requireDecidable(ctx, params.id), params.id, body.text),
    ),
  hand: () =>
    route(at.handSeat, async ({ ctx, params, body }) =>
      handSeat(ctx, await requireDecidable(ctx, params.id), params.id, body),
    ),
  callBack: () =>
    route(at.callBack, async ({ ctx, params }) =>
      callBack(ctx, await requireDecidable(ctx, params.id), params.id, params.handingId),
    ),
})
