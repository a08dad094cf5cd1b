import { budgetRoutes } from '#shared/contract/budget'
import { planYear } from '../../../budget/begin-year'
import { route } from '../../../http/route'

export default route(budgetRoutes.planBudgetYear, ({ ctx, params, query }) => planYear(ctx, params.year, query))
