import { regularsRoutes } from '#shared/contract/regulars'
import { route } from '../../../http/route'
import { beginFromRequisition } from '../../../regulars/begin'

export default route(regularsRoutes.beginFromRequisition, ({ ctx, params }) => beginFromRequisition(ctx, params.id))
