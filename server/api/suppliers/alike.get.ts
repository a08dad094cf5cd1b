import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../../http/route'
import { findAlike } from '../../supplier/find-alike'

export default route(supplierRoutes.findAlikeSuppliers, async ({ ctx, query }) => ({
  alike: await findAlike(ctx, query),
}))
