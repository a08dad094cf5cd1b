import { mineRoutes } from '#shared/contract/mine'
import { route } from '../http/route'
import { readMineFilters } from '../requisition/mine-filters'

export default route(mineRoutes.readMineFilters, ({ ctx }) => readMineFilters(ctx))
