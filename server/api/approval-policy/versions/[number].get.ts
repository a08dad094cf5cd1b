import { policyRoutes } from '#shared/contract/policy'
import { readPolicyVersion } from '../../../decide/read-policy'
import { route } from '../../../http/route'

export default route(policyRoutes.readPolicyVersion, ({ ctx, params }) => readPolicyVersion(ctx, params.number))
