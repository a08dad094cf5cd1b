import { listRoutes } from '#shared/contract/lists'
import { route } from '../../../http/route'
import { readOpenFile } from '../../../lists/read-laid'

export default route(listRoutes.readOpenFile, ({ ctx, params }) => readOpenFile(ctx, params.list))
