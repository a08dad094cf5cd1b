import { agreementRoutes } from '#shared/contract/agreement'
import { route } from '../../../http/route'
import { setOrderAgreement } from '../../../order/choose-agreement'

export default route(agreementRoutes.setOrderAgreement, ({ ctx, params, version, body }) =>
  setOrderAgreement(ctx, params.id, version, body.agreementId),
)
