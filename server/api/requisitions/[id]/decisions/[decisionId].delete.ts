import { decideRoutes } from '#shared/contract/decide'
import { takeBack } from '../../../../approval/take-back'
import { route } from '../../../../http/route'
import { REQUISITION } from '../../../../requisition/kind'

export default route(decideRoutes.takeBackDecision, ({ ctx, params }) =>
  takeBack(ctx, REQUISITION, params.id, params.decisionId),
)
