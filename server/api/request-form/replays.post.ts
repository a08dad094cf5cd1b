import { requestFormRoutes } from '#shared/contract/request-form'
import { route } from '../../http/route'
import { replayPast } from '../../requisition/request-form'

export default route(requestFormRoutes.replayRules, ({ ctx, body }) => replayPast(ctx, body.rules))
