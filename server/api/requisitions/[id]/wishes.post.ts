import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../http/route'
import { wishForChange } from '../../../order/wish-for-change'

export default route(requisitionRoutes.wishForChange, ({ ctx, params, body }) =>
  wishForChange(ctx, params.id, body.what, body.text),
)
