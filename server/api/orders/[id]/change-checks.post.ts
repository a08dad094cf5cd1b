import { orderChangeRoutes } from '#shared/contract/order-change'
import { route } from '../../../http/route'
import { checkChange } from '../../../order/check-change'

export default route(orderChangeRoutes.checkOrderChange, ({ ctx, params, body }) => checkChange(ctx, params.id, body))
