import { orderChangeRoutes } from '#shared/contract/order-change'
import { route } from '../../../http/route'
import { compareRevisions } from '../../../order/compare-revisions'

export default route(orderChangeRoutes.compareRevisions, ({ ctx, params, query }) =>
  compareRevisions(ctx, params.id, query),
)
