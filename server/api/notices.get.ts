import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { listNotices } from '../people/reads'

export default route(sessionRoutes.listNotices, async ({ ctx }) => ({
  notices: await listNotices(ctx.tx, ctx.actor.id),
}))
