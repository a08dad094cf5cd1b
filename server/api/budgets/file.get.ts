import { budgetRoutes } from '#shared/contract/budget'
import { exportBudgets } from '../../budget/export-budgets'
import { asDownload } from '../../http/download'
import { route } from '../../http/route'

export default route(budgetRoutes.exportBudgets, async ({ ctx, event, query }) =>
  asDownload(event, await exportBudgets(ctx, query)),
)
