import { sessionRoutes } from '#shared/contract/session'
import { route } from '../../http/route'
import { markNoticesRead } from '../../people/store'

export default route(sessionRoutes.readNotices, ({ ctx }) => markNoticesRead(ctx.tx, ctx.actor.id, ctx.now))
