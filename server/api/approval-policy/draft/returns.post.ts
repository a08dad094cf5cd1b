import { policyRoutes } from '#shared/contract/policy'
import { giveDraftBack } from '../../../decide/put-policy-in-force'
import { route } from '../../../http/route'

export default route(policyRoutes.givePolicyDraftBack, ({ ctx, version, body }) =>
  giveDraftBack(ctx, version, body.why),
)
