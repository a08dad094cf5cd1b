import { orderRoutes } from '#shared/contract/order'
import { route } from '../http/route'
import { layOnTray } from '../order/lay-tray'

export default route(orderRoutes.layOnTray, ({ ctx, body }) => layOnTray(ctx, body))
