import { scheduledRoutes } from '#shared/contract/scheduled'
import { route } from '../../../http/route'
import { runNow } from '../../../upkeep/scheduled-work'

export default route(scheduledRoutes.runScheduled, ({ ctx, params }) => runNow(ctx, params.task))
