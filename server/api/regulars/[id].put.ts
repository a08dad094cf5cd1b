import { regularsRoutes } from '#shared/contract/regulars'
import { route } from '../../http/route'
import { changeRegulars } from '../../regulars/regular-lists'

export default route(regularsRoutes.changeRegulars, ({ ctx, params, version, body }) =>
  changeRegulars(ctx, params.id, version, body.name, body.entries),
)
