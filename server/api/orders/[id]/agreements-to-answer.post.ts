import { orderAnswerRoutes } from '#shared/contract/order-answer'
import { route } from '../../../http/route'
import { agreeToAnswer } from '../../../order/agree-to-answer'

export default route(orderAnswerRoutes.agreeToAnswer, ({ ctx, params, version, body }) =>
  agreeToAnswer(ctx, params.id, version, body),
)
