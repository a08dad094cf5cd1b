import { listRoutes } from '#shared/contract/lists'
import { route } from '../../../http/route'
import { readChanges } from '../../../lists/read-list'

export default route(listRoutes.listChanges, ({ ctx, params }) => readChanges(ctx, params.list))
