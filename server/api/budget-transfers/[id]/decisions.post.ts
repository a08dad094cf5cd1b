import { budgetRoutes } from '#shared/contract/budget'
import { decideTransfer } from '../../../budget/transfer-money'
import { route } from '../../../http/route'

export default route(budgetRoutes.decideTransfer, ({ ctx, params, body }) =>
  decideTransfer(ctx, params.id, body.outcome, body.comment),
)
