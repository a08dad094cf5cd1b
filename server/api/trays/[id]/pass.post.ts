import { orderRoutes } from '#shared/contract/order'
import { route } from '../../../http/route'
import { passTray } from '../../../order/pass-tray'

export default route(orderRoutes.passTray, ({ ctx, params, body, version }) =>
  passTray(ctx, params.id, version, body.personId),
)
