import { agreementRoutes } from '#shared/contract/agreement'
import { exportAgreements } from '../../dealings/list-agreements'
import { asDownload } from '../../http/download'
import { route } from '../../http/route'

export default route(agreementRoutes.exportAgreements, async ({ ctx, event, query }) =>
  asDownload(event, await exportAgreements(ctx, query)),
)
