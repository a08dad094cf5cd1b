import { orderRoutes } from '#shared/contract/order'
import { asDownload } from '../../http/download'
import { route } from '../../http/route'
import { exportOrders } from '../../order/list-orders'

export default route(orderRoutes.exportOrders, async ({ ctx, event, query }) =>
  asDownload(event, await exportOrders(ctx, query)),
)
