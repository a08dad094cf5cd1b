import { agreementRoutes } from '#shared/contract/agreement'
import { route } from '../../../http/route'
import { listOrderAgreements } from '../../../order/choose-agreement'

export default route(agreementRoutes.listOrderAgreements, ({ ctx, params }) => listOrderAgreements(ctx, params.id))
