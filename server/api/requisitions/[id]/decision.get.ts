import { decideRoutes } from '#shared/contract/decide'
import { route } from '../../../http/route'
import { readDecision } from '../../../decide/read-decision'

export default route(decideRoutes.readDecision, ({ ctx, params }) => readDecision(ctx, params.id))
