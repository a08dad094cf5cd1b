import { decideRoutes } from '#shared/contract/decide'
import { handSeat } from '../../../approval/hand-seat'
import { route } from '../../../http/route'
import { REQUISITION } from '../../../requisition/kind'

export default route(decideRoutes.handSeat, ({ ctx, params, body }) => handSeat(ctx, REQUISITION, params.id, body))
