import { proposalRoutes } from '#shared/contract/proposal'
import { route } from '../http/route'
import { proposeOrders } from '../order/propose-orders'

export default route(proposalRoutes.proposeOrders, ({ ctx, query }) => proposeOrders(ctx, query), {
  changesNothing: true,
})
