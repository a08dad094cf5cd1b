import { orderingRoutes } from '#shared/contract/ordering'
import { route } from '../../../http/route'
import { askForRun } from '../../../ordering/keep-rule'

export default route(orderingRoutes.runRule, ({ ctx, params }) => askForRun(ctx, params.id))
