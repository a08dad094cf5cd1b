import { policyRoutes } from '#shared/contract/policy'
import { replayDraft } from '../../decide/replay-draft'
import { route } from '../../http/route'

export default route(policyRoutes.replayPolicy, ({ ctx, body }) => replayDraft(ctx, body), { changesNothing: true })
