import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../../../http/route'
import { mergeSuppliers } from '../../../dealings/merge-suppliers'

export default route(supplierRoutes.mergeSupplier, ({ ctx, params, body }) =>
  mergeSuppliers(ctx, params.id, body.into, body.seen),
)
