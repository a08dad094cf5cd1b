import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../http/route'
import { withdrawRequisition } from '../../../requisition/withdraw-requisition'

export default route(requisitionRoutes.withdrawRequisition, ({ ctx, params, version }) =>
  withdrawRequisition(ctx, params.id, version),
)
