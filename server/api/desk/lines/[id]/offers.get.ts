import { orderRoutes } from '#shared/contract/order'
import { readOffers } from '../../../../order/read-offers'
import { route } from '../../../../http/route'

export default route(orderRoutes.readOffers, ({ ctx, params, query }) => readOffers(ctx, params.id, query.quantity))
