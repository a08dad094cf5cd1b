import { policyRoutes } from '#shared/contract/policy'
import { keepDraft } from '../../decide/policy-draft'
import { route } from '../../http/route'

export default route(policyRoutes.keepPolicyDraft, ({ ctx, version, body }) => keepDraft(ctx, version, body))
