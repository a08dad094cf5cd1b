import { budgetRoutes } from '#shared/contract/budget'
import { beginYear } from '../../../budget/begin-year'
import { route } from '../../../http/route'

export default route(budgetRoutes.beginBudgetYear, ({ ctx, params, body }) => beginYear(ctx, params.year, body))
