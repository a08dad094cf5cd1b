import { orderChangeRoutes } from '#shared/contract/order-change'
import { route } from '../../../http/route'
import { changeOrder } from '../../../order/change-order'

export default route(orderChangeRoutes.changeOrder, ({ ctx, params, body, version }) =>
  changeOrder(ctx, params.id, version, body),
)
