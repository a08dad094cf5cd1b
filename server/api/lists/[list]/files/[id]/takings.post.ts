import { listRoutes } from '#shared/contract/lists'
import { route } from '../../../../../http/route'
import { beginTaking } from '../../../../../lists/take-laid'

export default route(listRoutes.takeFile, ({ ctx, params, body }) =>
  beginTaking(ctx, params.list, params.id, body.gone),
)
