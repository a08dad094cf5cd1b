import { organisationRoutes } from '#shared/contract/organisation'
import { route } from '../http/route'
import { keepOrganisation } from '../organisation/keep-organisation'

export default route(organisationRoutes.keepOrganisation, ({ ctx, version, body }) =>
  keepOrganisation(ctx, version, body),
)
