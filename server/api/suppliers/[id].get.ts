import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../../http/route'
import { readSupplier } from '../../requisition/read-supplier'

export default route(supplierRoutes.readSupplier, ({ ctx, params }) => readSupplier(ctx, params.id))
