import { decidedRoutes } from '#shared/contract/decided'
import { exportDecided } from '../../decide/read-decided'
import { asDownload } from '../../http/download'
import { route } from '../../http/route'

export default route(decidedRoutes.exportDecided, async ({ ctx, event, query }) =>
  asDownload(event, await exportDecided(ctx, query)),
)
