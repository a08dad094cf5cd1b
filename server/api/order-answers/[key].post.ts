import { orderAnswerRoutes } from '#shared/contract/order-answer'
import { route } from '../../http/route'
import { answerByLink } from '../../order/answer-order'

export default route(orderAnswerRoutes.answerOrder, ({ ctx, params, body }) => answerByLink(ctx, params.key, body))
