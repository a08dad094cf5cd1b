import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../../http/route'
import { detachFile } from '../../../../document/attach-file'
import { REQUISITION } from '../../../../requisition/kind'

export default route(requisitionRoutes.detachFile, ({ ctx, params }) =>
  detachFile(ctx, REQUISITION, params.id, params.attachmentId),
)
