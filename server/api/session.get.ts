import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { readMe } from '../session/read-me'

export default route(sessionRoutes.readSession, ({ ctx }) => readMe(ctx))
