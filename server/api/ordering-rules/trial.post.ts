import { orderingRoutes } from '#shared/contract/ordering'
import { route } from '../../http/route'
import { tryRule } from '../../ordering/try-rule'

export default route(orderingRoutes.tryRule, ({ ctx, body }) => tryRule(ctx, body))
