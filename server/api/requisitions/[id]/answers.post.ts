import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../http/route'
import { answerQuestion } from '../../../requisition/answer-question'

export default route(requisitionRoutes.answerQuestion, ({ ctx, params, body }) =>
  answerQuestion(ctx, params.id, body.text),
)
