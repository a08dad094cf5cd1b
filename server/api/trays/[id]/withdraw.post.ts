import { orderRoutes } from '#shared/contract/order'
import { route } from '../../../http/route'
import { takeOrderBack } from '../../../order/take-order-back'

export default route(orderRoutes.takeTrayBack, ({ ctx, params, version }) => takeOrderBack(ctx, params.id, version))
