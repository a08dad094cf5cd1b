import { agreementRoutes } from '#shared/contract/agreement'
import { keepAgreement } from '../../agreement/keep-agreement'
import { route } from '../../http/route'

export default route(agreementRoutes.keepAgreement, ({ ctx, params, version, body }) =>
  keepAgreement(ctx, params.id, version, body),
)
