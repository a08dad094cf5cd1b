import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../http/route'
import { saveDraft } from '../../requisition/save-draft'

export default route(requisitionRoutes.saveDraft, ({ ctx, params, body, version }) =>
  saveDraft(ctx, params.id, version, body.draft, body.ownerId),
)
