import { ownerRoutes } from '#shared/contract/owner'
import { route } from '../../../../http/route'
import { handOverOwned } from '../../../../owner/hand-over-owned'

export default route(ownerRoutes.handOverOwned, ({ ctx, params, body }) =>
  handOverOwned(ctx, { personId: params.id, ...body }),
)
