import { decideRoutes } from '#shared/contract/decide'
import { decide } from '../../../approval/decide'
import { withWhatHoldsNow } from '../../../document/holds-now'
import { forbidden } from '../../../http/problem'
import { route } from '../../../http/route'
import { REQUISITION } from '../../../requisition/kind'

export default route(
  decideRoutes.decideRequisition,
  ({ ctx, params, body, version }) => {
    if (body.by !== undefined && body.by !== ctx.actor.id)
      throw forbidden('It was decided by somebody else, who is not signed in here any more; decide it yourself.')
    return decide(ctx, REQUISITION, params.id, version, body.outcome, body.comment)
  },
  { again: ({ ctx, params }, first) => withWhatHoldsNow(ctx, params.id, first) },
)
