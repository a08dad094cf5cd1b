import { orderChangeRoutes } from '#shared/contract/order-change'
import { route } from '../../http/route'
import { throwChangeAway } from '../../order/end-change'

export default route(orderChangeRoutes.throwOrderChangeAway, ({ ctx, params }) => throwChangeAway(ctx, params.id))
