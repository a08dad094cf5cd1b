import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../../http/route'
import { describeAttachment } from '../../../../requisition/attach-file'

export default route(requisitionRoutes.describeAttachment, ({ ctx, params, body }) =>
  describeAttachment(ctx, params.id, params.attachmentId, body),
)
