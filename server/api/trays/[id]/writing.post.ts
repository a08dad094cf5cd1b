import { orderRoutes } from '#shared/contract/order'
import { route } from '../../../http/route'
import { writeOn } from '../../../order/write-on'

export default route(orderRoutes.writeOn, ({ ctx, params, version }) => writeOn(ctx, params.id, version))
