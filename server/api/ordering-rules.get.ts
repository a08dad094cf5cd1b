import { orderingRoutes } from '#shared/contract/ordering'
import { route } from '../http/route'
import { readRules } from '../ordering/read-rules'

export default route(orderingRoutes.listRules, ({ ctx }) => readRules(ctx))
