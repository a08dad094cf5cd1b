import { organisationRoutes } from '#shared/contract/organisation'
import { route } from '../../../http/route'
import { dropFactorOf } from '../../../session/drop-factor'

export default route(organisationRoutes.dropFactorOf, ({ ctx, params }) => dropFactorOf(ctx, params.id))
