import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../http/route'
import { askQuestion } from '../../../requisition/ask-question'

export default route(requisitionRoutes.askQuestion, ({ ctx, params, body }) => askQuestion(ctx, params.id, body.text))
