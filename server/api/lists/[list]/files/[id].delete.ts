import { listRoutes } from '#shared/contract/lists'
import { route } from '../../../../http/route'
import { leaveFile } from '../../../../lists/lay-file'

export default route(listRoutes.leaveFile, ({ ctx, params }) => leaveFile(ctx, params.list, params.id))
