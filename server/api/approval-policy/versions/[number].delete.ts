import { policyRoutes } from '#shared/contract/policy'
import { callVersionOff } from '../../../decide/put-policy-in-force'
import { route } from '../../../http/route'

export default route(policyRoutes.callPolicyVersionOff, ({ ctx, params }) => callVersionOff(ctx, params.number))
