import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../http/route'
import { readDecision } from '../../../requisition/decision-page'

export default route(requisitionRoutes.readDecision, ({ ctx, params }) => readDecision(ctx, params.id))
