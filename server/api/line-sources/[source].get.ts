import { regularsRoutes } from '#shared/contract/regulars'
import { route } from '../../http/route'
import { readLineSource } from '../../regulars/line-sources'

export default route(regularsRoutes.readLineSource, ({ ctx, params, query }) =>
  readLineSource(ctx, params.source, query),
)
