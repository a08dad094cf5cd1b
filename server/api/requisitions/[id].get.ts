import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../http/route'
import { readRequisition } from '../../requisition/read-requisition'

export default route(requisitionRoutes.readRequisition, ({ ctx, params }) => readRequisition(ctx, params.id))
