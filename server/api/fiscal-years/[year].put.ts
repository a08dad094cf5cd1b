import { organisationRoutes } from '#shared/contract/organisation'
import { route } from '../../http/route'
import { addFiscalYear } from '../../organisation/set-period'

export default route(organisationRoutes.addFiscalYear, ({ ctx, params }) => addFiscalYear(ctx, params.year))
