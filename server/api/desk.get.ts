import { orderRoutes } from '#shared/contract/order'
import { route } from '../http/route'
import { readDesk } from '../order/read-desk'

export default route(orderRoutes.readDesk, ({ ctx, query: { limit, ...asked } }) => readDesk(ctx, limit, asked))
