import { budgetRoutes } from '#shared/contract/budget'
import { route } from '../../../http/route'
import { listBudgetEntries } from '../../../budget/list-budget-entries'

export default route(budgetRoutes.listBudgetEntries, ({ ctx, params, query }) =>
  listBudgetEntries(ctx, params.id, query.before),
)
