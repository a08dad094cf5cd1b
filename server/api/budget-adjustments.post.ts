import { budgetRoutes } from '#shared/contract/budget'
import { adjustBudget } from '../budget/transfer-money'
import { route } from '../http/route'

export default route(budgetRoutes.adjustBudget, ({ ctx, body }) => adjustBudget(ctx, body))
