import { listRoutes } from '#shared/contract/lists'
import { route } from '../http/route'
import { readSetUp } from '../lists/read-set-up'

export default route(listRoutes.readSetUp, ({ ctx }) => readSetUp(ctx))
