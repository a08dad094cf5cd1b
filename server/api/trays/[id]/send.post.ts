import { orderRoutes } from '#shared/contract/order'
import { route } from '../../../http/route'
import { askForDecision } from '../../../order/ask-for-decision'

export default route(orderRoutes.sendTray, ({ ctx, params, body, version }) =>
  askForDecision(ctx, params.id, version, body.issuesItself),
)
