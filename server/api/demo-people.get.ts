import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { listDemo } from '../people/list-demo'

export default route(sessionRoutes.listDemoPeople, ({ ctx }) => listDemo(ctx))
