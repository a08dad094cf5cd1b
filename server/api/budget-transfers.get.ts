import { budgetRoutes } from '#shared/contract/budget'
import { readTransfers } from '../budget/read-transfers'
import { route } from '../http/route'

export default route(budgetRoutes.listTransfers, ({ ctx, query }) => readTransfers(ctx, query.year))
