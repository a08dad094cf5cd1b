import { listRoutes } from '#shared/contract/lists'
import { asDownload } from '../../../http/download'
import { route } from '../../../http/route'
import { exportList } from '../../../lists/export-list'

export default route(listRoutes.exportList, async ({ ctx, event, params, query }) =>
  asDownload(event, await exportList(ctx, params.list, query.as)),
)
