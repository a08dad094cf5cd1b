import { regularsRoutes } from '#shared/contract/regulars'
import { route } from '../../http/route'
import { removeRegulars } from '../../regulars/regular-lists'

export default route(regularsRoutes.removeRegulars, ({ ctx, params, version }) =>
  removeRegulars(ctx, params.id, version),
)
