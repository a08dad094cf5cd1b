import { policyRoutes } from '#shared/contract/policy'
import { throwDraftAway } from '../../decide/policy-draft'
import { route } from '../../http/route'

export default route(policyRoutes.throwPolicyDraftAway, ({ ctx, version }) => throwDraftAway(ctx, version))
