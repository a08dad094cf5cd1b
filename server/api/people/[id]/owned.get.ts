import { ownerRoutes } from '#shared/contract/owner'
import { route } from '../../../http/route'
import { readOwned } from '../../../owner/read-owned'

export default route(ownerRoutes.readOwned, ({ ctx, params }) => readOwned(ctx, params.id))
