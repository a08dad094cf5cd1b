import { listRoutes } from '#shared/contract/lists'
import { route } from '../../../http/route'
import { planFile } from '../../../lists/plan-file'

export default route(listRoutes.planRows, ({ ctx, params, body }) => planFile(ctx, params.list, body), {
  changesNothing: true,
})
