import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { listDemo } from '../session/list-demo'

export default route(sessionRoutes.listDemoPeople, ({ ctx }) => listDemo(ctx))
