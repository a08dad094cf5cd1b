import { budgetRoutes } from '#shared/contract/budget'
import { takeBackTransfer } from '../../budget/transfer-money'
import { route } from '../../http/route'

export default route(budgetRoutes.takeBackTransfer, ({ ctx, params }) => takeBackTransfer(ctx, params.id))
