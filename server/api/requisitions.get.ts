import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../http/route'
import { readMine } from '../requisition/read-mine'

export default route(requisitionRoutes.listMine, ({ ctx, query }) => readMine(ctx, query))
