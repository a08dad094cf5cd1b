import { regularsRoutes } from '#shared/contract/regulars'
import { route } from '../http/route'
import { makeRegulars } from '../regulars/regular-lists'

export default route(regularsRoutes.makeRegulars, ({ ctx, body }) =>
  makeRegulars(ctx, body.name, body.departmentId, body.entries),
)
