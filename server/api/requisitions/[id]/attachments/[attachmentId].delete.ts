import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../../http/route'
import { detachFile } from '../../../../requisition/attach-file'

export default route(requisitionRoutes.detachFile, ({ ctx, params }) => detachFile(ctx, params.id, params.attachmentId))
