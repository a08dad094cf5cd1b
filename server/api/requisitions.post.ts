import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../http/route'
import { createDraft } from '../requisition/save-draft'

export default route(requisitionRoutes.createDraft, ({ ctx, body }) =>
  createDraft(ctx, body.id, body.draft, body.ownerId),
)
