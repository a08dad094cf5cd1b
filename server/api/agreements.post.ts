import { agreementRoutes } from '#shared/contract/agreement'
import { addAgreement } from '../agreement/keep-agreement'
import { route } from '../http/route'

export default route(agreementRoutes.addAgreement, ({ ctx, body }) => addAgreement(ctx, body))
