import { orderAnswerRoutes } from '#shared/contract/order-answer'
import { route } from '../../../http/route'
import { declineAnswer } from '../../../order/agree-to-answer'

export default route(orderAnswerRoutes.declineAnswer, ({ ctx, params, version, body }) =>
  declineAnswer(ctx, params.id, version, body),
)
