import { decidedRoutes } from '#shared/contract/decided'
import { readDecided } from '../decide/read-decided'
import { route } from '../http/route'

export default route(decidedRoutes.readDecided, ({ ctx, query }) => readDecided(ctx, query))
