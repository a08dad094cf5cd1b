import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { readOwnSessions } from '../session/own-sessions'

export default route(sessionRoutes.listSessions, ({ ctx, event }) => readOwnSessions(ctx, event))
