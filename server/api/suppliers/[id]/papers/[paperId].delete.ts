import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../../../../http/route'
import { removePaper } from '../../../../supplier/papers'

export default route(supplierRoutes.removeSupplierPaper, ({ ctx, params }) =>
  removePaper(ctx, params.id, params.paperId),
)
