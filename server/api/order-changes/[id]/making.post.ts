import { orderChangeRoutes } from '#shared/contract/order-change'
import { route } from '../../../http/route'
import { makeApproved } from '../../../order/make-approved'

export default route(orderChangeRoutes.makeOrderChange, ({ ctx, params }) => makeApproved(ctx, params.id))
