import { orderAnswerRoutes } from '#shared/contract/order-answer'
import { route } from '../../../http/route'
import { takeResponse } from '../../../order/take-response'

export default route(orderAnswerRoutes.takeResponse, ({ ctx, params, version, bytes }) =>
  takeResponse(ctx, params.id, version, bytes),
)
