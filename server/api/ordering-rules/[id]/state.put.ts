import { orderingRoutes } from '#shared/contract/ordering'
import { route } from '../../../http/route'
import { moveRule } from '../../../ordering/keep-rule'

export default route(orderingRoutes.moveRule, ({ ctx, params, version, body }) =>
  moveRule(ctx, params.id, version, body.move),
)
