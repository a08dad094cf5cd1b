import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { readHealth } from '../http/health'

export default route(sessionRoutes.readHealth, ({ ctx, event }) => readHealth(ctx, event))
