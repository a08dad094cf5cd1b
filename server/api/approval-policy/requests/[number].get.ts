import { policyRoutes } from '#shared/contract/policy'
import { readTriedRequest } from '../../../decide/read-tried-request'
import { route } from '../../../http/route'

export default route(policyRoutes.readTriedRequest, ({ ctx, params }) => readTriedRequest(ctx, params.number))
