import { budgetRoutes } from '#shared/contract/budget'
import { route } from '../http/route'
import { listBudgets } from '../budget/list-budgets'

export default route(budgetRoutes.listBudgets, ({ ctx, query }) => listBudgets(ctx, query.year, query.until))
