import { orderRoutes } from '#shared/contract/order'
import { route } from '../../../http/route'
import { resendOrder } from '../../../order/resend-order'

export default route(orderRoutes.resendOrder, ({ ctx, params }) => resendOrder(ctx, params.id))
