import { organisationRoutes } from '#shared/contract/organisation'
import { route } from '../http/route'
import { readOrganisation } from '../organisation/read-organisation'

export default route(organisationRoutes.readOrganisation, ({ ctx }) => readOrganisation(ctx))
