import { decideRoutes } from '#shared/contract/decide'
import { askQuestion } from '../../../approval/ask-question'
import { route } from '../../../http/route'
import { REQUISITION } from '../../../requisition/kind'

export default route(decideRoutes.askQuestion, ({ ctx, params, body }) =>
  askQuestion(ctx, REQUISITION, params.id, body.text, body.toId),
)
