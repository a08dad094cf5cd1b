import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../http/route'
import { sendRequisition } from '../../../requisition/send-requisition'

export default route(requisitionRoutes.sendRequisition, ({ ctx, params, version }) =>
  sendRequisition(ctx, params.id, version),
)
