import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../http/route'
import { remind } from '../../../requisition/remind'

export default route(requisitionRoutes.remind, ({ ctx, params }) => remind(ctx, params.id))
