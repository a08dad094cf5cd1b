import { orderingRoutes } from '#shared/contract/ordering'
import { route } from '../../http/route'
import { readRun } from '../../ordering/read-runs'

export default route(orderingRoutes.readRun, ({ ctx, params }) => readRun(ctx, params.id))
