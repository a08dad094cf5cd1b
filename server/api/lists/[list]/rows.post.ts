import { listRoutes } from '#shared/contract/lists'
import { route } from '../../../http/route'
import { keepRows } from '../../../lists/keep-list'

export default route(listRoutes.keepRows, ({ ctx, params, version, body }) => keepRows(ctx, params.list, version, body))
