import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { readNotices } from '../session/read-notices'

export default route(sessionRoutes.listNotices, ({ ctx }) => readNotices(ctx))
