import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../../../http/route'
import { decideSupplier } from '../../../supplier/decide-supplier'

export default route(supplierRoutes.decideSupplier, ({ ctx, params, body }) =>
  decideSupplier(ctx, params.id, body.accept, body.reason),
)
