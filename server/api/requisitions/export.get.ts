import { requisitionRoutes } from '#shared/contract/requisition'
import { asDownload } from '../../http/download'
import { route } from '../../http/route'
import { exportMine } from '../../requisition/export-mine'

export default route(requisitionRoutes.exportMine, async ({ ctx, event, query }) =>
  asDownload(event, await exportMine(ctx, query)),
)
