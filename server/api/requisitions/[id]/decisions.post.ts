import { decideRoutes } from '#shared/contract/decide'
import { decide } from '../../../approval/decide'
import { withWhatHoldsNow } from '../../../document/holds-now'
import { route } from '../../../http/route'
import { REQUISITION } from '../../../requisition/kind'

export default route(
  decideRoutes.decideRequisition,
  ({ ctx, params, body, version }) => decide(ctx, REQUISITION, params.id, version, body.outcome, body.comment),
  { again: ({ ctx, params }, first) => withWhatHoldsNow(ctx, params.id, first) },
)
