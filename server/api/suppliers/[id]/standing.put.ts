import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../../../http/route'
import { changeStanding } from '../../../supplier/change-standing'

export default route(supplierRoutes.changeSupplierStanding, ({ ctx, params, version, body }) =>
  changeStanding(ctx, params.id, version, body),
)
