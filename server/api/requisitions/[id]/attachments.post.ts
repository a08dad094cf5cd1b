import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../http/route'
import { attachFile } from '../../../requisition/attach-file'

export default route(requisitionRoutes.attachFile, ({ ctx, params, query, bytes }) =>
  attachFile(ctx, params.id, { bytes, ...query }),
)
