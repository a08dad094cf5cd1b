import { orderRoutes } from '#shared/contract/order'
import { route } from '../../../http/route'
import { takeOffTray } from '../../../order/lay-tray'

export default route(orderRoutes.takeOffTray, ({ ctx, params, body }) => takeOffTray(ctx, params.id, body.lineIds))
