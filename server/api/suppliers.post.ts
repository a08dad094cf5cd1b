import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../http/route'
import { proposeSupplier } from '../supplier/propose-supplier'

export default route(supplierRoutes.proposeSupplier, ({ ctx, body }) => proposeSupplier(ctx, body))
