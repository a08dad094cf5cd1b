import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../http/route'
import { readTrail } from '../../../requisition/trail-page'

export default route(requisitionRoutes.readTrail, ({ ctx, params }) => readTrail(ctx, params.id))
