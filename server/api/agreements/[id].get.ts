import { agreementRoutes } from '#shared/contract/agreement'
import { readAgreement } from '../../dealings/read-agreement'
import { route } from '../../http/route'

export default route(agreementRoutes.readAgreement, ({ ctx, params }) => readAgreement(ctx, params.id))
