import { orderRoutes } from '#shared/contract/order'
import { route } from '../../../http/route'
import { setTrayQuantity } from '../../../order/set-tray-quantity'

export default route(orderRoutes.setTrayQuantity, ({ ctx, params, body }) => setTrayQuantity(ctx, params.id, body))
