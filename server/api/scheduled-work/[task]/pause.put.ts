import { scheduledRoutes } from '#shared/contract/scheduled'
import { route } from '../../../http/route'
import { setPaused } from '../../../upkeep/scheduled-work'

export default route(scheduledRoutes.pauseScheduled, ({ ctx, params, body }) =>
  setPaused(ctx, params.task, body.paused),
)
