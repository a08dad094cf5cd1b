import { listRoutes } from '#shared/contract/lists'
import { route } from '../../../../http/route'
import { readLaidFile } from '../../../../lists/read-laid'

export default route(listRoutes.readLaidFile, ({ ctx, params }) => readLaidFile(ctx, params.list, params.id))
