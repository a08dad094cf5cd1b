import { orderingRoutes } from '#shared/contract/ordering'
import { route } from '../../http/route'
import { keepRule } from '../../ordering/keep-rule'

export default route(orderingRoutes.keepRule, ({ ctx, params, version, body }) =>
  keepRule(ctx, params.id, version, body),
)
