import { listRoutes } from '#shared/contract/lists'
import { route } from '../../../../../http/route'
import { beginLooking } from '../../../../../lists/look-at-laid'

export default route(listRoutes.lookAtFile, ({ ctx, params, body }) =>
  beginLooking(ctx, params.list, params.id, body.columns),
)
