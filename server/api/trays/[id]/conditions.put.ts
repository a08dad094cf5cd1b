import { orderRoutes } from '#shared/contract/order'
import { route } from '../../../http/route'
import { setOrderConditions } from '../../../order/set-conditions'

export default route(orderRoutes.setConditions, ({ ctx, params, version, body }) =>
  setOrderConditions(ctx, params.id, version, body),
)
