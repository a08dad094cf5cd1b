import { orderingRoutes } from '#shared/contract/ordering'
import { route } from '../http/route'
import { readRuns } from '../ordering/read-runs'

export default route(orderingRoutes.listRuns, ({ ctx, query }) => readRuns(ctx, query))
