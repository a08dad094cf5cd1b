import { orderAnswerRoutes } from '#shared/contract/order-answer'
import { route } from '../http/route'
import { remindSuppliers } from '../order/remind-suppliers'

export default route(orderAnswerRoutes.remindSuppliers, ({ ctx, body }) => remindSuppliers(ctx, body.orderIds))
