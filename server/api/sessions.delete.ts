import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { endOthers } from '../session/own-sessions'

export default route(sessionRoutes.endOtherSessions, ({ ctx, event }) => endOthers(ctx, event))
