import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { describeApi } from '../http/open-api'

export default route(sessionRoutes.readOpenApi, () => Promise.resolve(describeApi()))
