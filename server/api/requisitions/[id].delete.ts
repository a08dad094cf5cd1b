import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../http/route'
import { throwAwayDraft } from '../../requisition/throw-away-draft'

export default route(requisitionRoutes.throwAwayDraft, ({ ctx, params, version }) =>
  throwAwayDraft(ctx, params.id, version),
)
