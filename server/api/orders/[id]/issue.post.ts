import { orderRoutes } from '#shared/contract/order'
import { route } from '../../../http/route'
import { issueOrder } from '../../../order/issue-order'

export default route(orderRoutes.issueOrder, ({ ctx, params, version }) => issueOrder(ctx, params.id, version))
