import { budgetRoutes } from '#shared/contract/budget'
import { proposeTransfer } from '../budget/transfer-money'
import { route } from '../http/route'

export default route(budgetRoutes.proposeTransfer, ({ ctx, body }) => proposeTransfer(ctx, body))
