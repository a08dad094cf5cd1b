import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../../http/route'
import { takeBackDecision } from '../../../../requisition/take-back-decision'

export default route(requisitionRoutes.takeBackDecision, ({ ctx, params }) =>
  takeBackDecision(ctx, params.id, params.decisionId),
)
