import { regularsRoutes } from '#shared/contract/regulars'
import { route } from '../../../http/route'
import { beginFromOrder } from '../../../regulars/begin'

export default route(regularsRoutes.beginFromOrder, ({ ctx, params }) => beginFromOrder(ctx, params.id))
