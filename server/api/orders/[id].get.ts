import { orderRoutes } from '#shared/contract/order'
import { route } from '../../http/route'
import { readOrder } from '../../order/read-order'

export default route(orderRoutes.readOrder, ({ ctx, params }) => readOrder(ctx, params.id))
