import { waitingRoutes } from '#shared/contract/waiting'
import { readWaiting } from '../decide/read-waiting'
import { route } from '../http/route'

export default route(waitingRoutes.listWaitingSteps, ({ ctx, query }) => readWaiting(ctx, query.words))
