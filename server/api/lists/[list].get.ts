import { listRoutes } from '#shared/contract/lists'
import { route } from '../../http/route'
import { readList } from '../../lists/read-list'

export default route(listRoutes.readList, ({ ctx, params, query }) => readList(ctx, params.list, query.words))
