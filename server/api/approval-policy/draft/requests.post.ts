import { policyRoutes } from '#shared/contract/policy'
import { askForDraft } from '../../../decide/put-policy-in-force'
import { route } from '../../../http/route'

export default route(policyRoutes.askForPolicyDraft, ({ ctx, version, body }) => askForDraft(ctx, version, body.from))
