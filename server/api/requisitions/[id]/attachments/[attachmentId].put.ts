import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../../http/route'
import { describeAttachment } from '../../../../document/attach-file'
import { REQUISITION } from '../../../../requisition/kind'

export default route(requisitionRoutes.describeAttachment, ({ ctx, params, body }) =>
  describeAttachment(ctx, REQUISITION, params.id, params.attachmentId, body),
)
