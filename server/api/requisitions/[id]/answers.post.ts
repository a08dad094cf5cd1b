import { decideRoutes } from '#shared/contract/decide'
import { answerQuestion } from '../../../approval/answer-question'
import { route } from '../../../http/route'
import { REQUISITION } from '../../../requisition/kind'

export default route(decideRoutes.answerQuestion, ({ ctx, params, body }) =>
  answerQuestion(ctx, REQUISITION, params.id, body.text),
)
