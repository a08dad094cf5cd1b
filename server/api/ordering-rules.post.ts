import { orderingRoutes } from '#shared/contract/ordering'
import { route } from '../http/route'
import { addRule } from '../ordering/keep-rule'

export default route(orderingRoutes.addRule, ({ ctx, body }) => addRule(ctx, body))
