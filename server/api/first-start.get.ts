import { firstStartRoutes } from '#shared/contract/first-start'
import { readFirstStart } from '../first-start/read-first-start'
import { route } from '../http/route'

export default route(firstStartRoutes.readFirstStart, ({ ctx, query }) => readFirstStart(ctx, query.key))
