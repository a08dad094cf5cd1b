import { policyRoutes } from '#shared/contract/policy'
import { confirmDraft } from '../../../decide/put-policy-in-force'
import { route } from '../../../http/route'

export default route(policyRoutes.confirmPolicyDraft, ({ ctx, version }) => confirmDraft(ctx, version))
