import { orderAnswerRoutes } from '#shared/contract/order-answer'
import { route } from '../../http/route'
import { readAskedOrder } from '../../order/read-asked-order'

export default route(orderAnswerRoutes.readAskedOrder, ({ ctx, params }) => readAskedOrder(ctx, params.key))
