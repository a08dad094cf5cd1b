import { sessionRoutes } from '#shared/contract/session'
import { route } from '../../http/route'
import { endOwnSession } from '../../session/own-sessions'

export default route(sessionRoutes.endSession, ({ ctx, params }) => endOwnSession(ctx, params.id))
