import { mineRoutes } from '#shared/contract/mine'
import { asDownload } from '../../http/download'
import { route } from '../../http/route'
import { exportMine } from '../../requisition/export-mine'

export default route(mineRoutes.exportMine, async ({ ctx, event, query }) =>
  asDownload(event, await exportMine(ctx, query)),
)
