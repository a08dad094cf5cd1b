import { budgetRoutes } from '#shared/contract/budget'
import { setProfile } from '../../../budget/set-profile'
import { route } from '../../../http/route'

export default route(budgetRoutes.setBudgetProfile, ({ ctx, params, body }) => setProfile(ctx, params.id, body))
