import { waitingRoutes } from '#shared/contract/waiting'
import { moveWaiting } from '../../decide/move-waiting'
import { route } from '../../http/route'

export default route(waitingRoutes.moveWaitingSteps, ({ ctx, body }) => moveWaiting(ctx, body))
