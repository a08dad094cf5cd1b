import { orderRoutes } from '#shared/contract/order'
import { route } from '../../../http/route'
import { orderDirectly } from '../../../order/order-directly'

export default route(orderRoutes.orderDirectly, ({ ctx, params, version }) => orderDirectly(ctx, params.id, version))
