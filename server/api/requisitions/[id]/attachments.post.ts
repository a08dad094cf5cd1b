import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../http/route'
import { attachFile } from '../../../document/attach-file'
import { REQUISITION } from '../../../requisition/kind'

export default route(requisitionRoutes.attachFile, ({ ctx, params, query, bytes }) =>
  attachFile(ctx, REQUISITION, params.id, { bytes, ...query }),
)
