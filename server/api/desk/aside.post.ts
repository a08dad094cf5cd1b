import { orderRoutes } from '#shared/contract/order'
import { route } from '../../http/route'
import { putAside } from '../../order/put-aside'

export default route(orderRoutes.putAside, ({ ctx, body }) => putAside(ctx, body))
