import { agreementRoutes } from '#shared/contract/agreement'
import { listAgreements } from '../dealings/list-agreements'
import { route } from '../http/route'

export default route(agreementRoutes.listAgreements, ({ ctx, query }) => listAgreements(ctx, query))
