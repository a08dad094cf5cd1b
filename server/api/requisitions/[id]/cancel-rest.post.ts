import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../http/route'
import { cancelRest } from '../../../requisition/cancel-rest'

export default route(requisitionRoutes.cancelRest, ({ ctx, params, version }) => cancelRest(ctx, params.id, version))
