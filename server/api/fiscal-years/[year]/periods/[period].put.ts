import { organisationRoutes } from '#shared/contract/organisation'
import { route } from '../../../../http/route'
import { setPeriod } from '../../../../organisation/set-period'

export default route(organisationRoutes.setPeriod, ({ ctx, params, body }) =>
  setPeriod(ctx, params.year, params.period, body.closed),
)
