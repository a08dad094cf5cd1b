import { orderRoutes } from '#shared/contract/order'
import { route } from '../http/route'
import { listOrders } from '../order/list-orders'

export default route(orderRoutes.listOrders, ({ ctx, query }) => listOrders(ctx, query))
