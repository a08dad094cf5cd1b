import { listRoutes } from '#shared/contract/lists'
import { route } from '../../../http/route'
import { layFile } from '../../../lists/lay-file'

export default route(listRoutes.layFile, ({ ctx, params, bytes, query }) =>
  layFile(ctx, params.list, bytes, query.name),
)
