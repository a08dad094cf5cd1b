import { agreementRoutes } from '#shared/contract/agreement'
import { closeAgreement } from '../../../agreement/keep-agreement'
import { route } from '../../../http/route'

export default route(agreementRoutes.closeAgreement, ({ ctx, params, version, body }) =>
  closeAgreement(ctx, params.id, version, body.isClosed),
)
