import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../../../http/route'
import { addPaper } from '../../../supplier/papers'

export default route(supplierRoutes.addSupplierPaper, ({ ctx, params, bytes, query }) =>
  addPaper(ctx, params.id, bytes, { name: query.name, validUntil: query.validUntil ?? null }),
)
