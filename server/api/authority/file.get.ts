import { lookBackRoutes } from '#shared/contract/look-back'
import { asDownload } from '../../http/download'
import { route } from '../../http/route'
import { exportAuthority } from '../../look-back/read-authority'

export default route(lookBackRoutes.exportAuthority, async ({ ctx, event, query }) =>
  asDownload(event, await exportAuthority(ctx, query.day, query.as)),
)
