import { mineRoutes } from '#shared/contract/mine'
import { route } from '../http/route'
import { readMine } from '../requisition/read-mine'

export default route(mineRoutes.listMine, ({ ctx, query }) => readMine(ctx, query))
