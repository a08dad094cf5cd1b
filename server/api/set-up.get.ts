import { listRoutes } from '#shared/contract/lists'
import { route } from '../http/route'
import { readSetUp } from '../lists/read-list'

export default route(listRoutes.readSetUp, ({ ctx }) => readSetUp(ctx))
