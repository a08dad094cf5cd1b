import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../http/route'
import { decideRequisition } from '../../../requisition/decide-requisition'

export default route(requisitionRoutes.decideRequisition, ({ ctx, params, body, version }) =>
  decideRequisition(ctx, params.id, version, body.outcome, body.comment),
)
