import { orderRoutes } from '#shared/contract/order'
import { route } from '../../../http/route'
import { readTrayBuyers } from '../../../order/pass-tray'

export default route(orderRoutes.readTrayBuyers, ({ ctx, params }) => readTrayBuyers(ctx, params.id))
