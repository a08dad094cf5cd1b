import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../../../http/route'
import { keepRecord } from '../../../supplier/keep-record'

export default route(supplierRoutes.keepSupplierRecord, ({ ctx, params, version, body }) =>
  keepRecord(ctx, params.id, version, body),
)
