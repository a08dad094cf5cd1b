import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../http/route'
import { readMineFilters } from '../requisition/mine-filters'

export default route(requisitionRoutes.readMineFilters, ({ ctx }) => readMineFilters(ctx))
