import { decideRoutes } from '#shared/contract/decide'
import { callBack } from '../../../../approval/call-back'
import { route } from '../../../../http/route'
import { REQUISITION } from '../../../../requisition/kind'

export default route(decideRoutes.callBack, ({ ctx, params }) =>
  callBack(ctx, REQUISITION, params.id, params.handingId),
)
