import { orderRoutes } from '#shared/contract/order'
import { route } from '../../../http/route'
import { agreePrice } from '../../../order/lay-tray'

export default route(orderRoutes.agreePrice, ({ ctx, params, body }) =>
  agreePrice(ctx, params.id, body.lineId, body.unitPrice),
)
