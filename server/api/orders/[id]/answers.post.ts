import { orderAnswerRoutes } from '#shared/contract/order-answer'
import { route } from '../../../http/route'
import { typeAnswerIn } from '../../../order/answer-order'

export default route(orderAnswerRoutes.typeAnswerIn, ({ ctx, params, version, body }) =>
  typeAnswerIn(ctx, params.id, version, body),
)
