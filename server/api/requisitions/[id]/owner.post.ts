import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../http/route'
import { handOver, handOverAll } from '../../../requisition/hand-over'

export default route(requisitionRoutes.handOver, ({ ctx, params, body, version }) =>
  (body.everything ? handOverAll : handOver)(ctx, params.id, version, body.personId),
)
