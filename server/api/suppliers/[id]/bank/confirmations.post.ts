import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../../../../http/route'
import { confirmBankChange } from '../../../../supplier/change-bank'

export default route(supplierRoutes.confirmBankChange, ({ ctx, params, body }) =>
  confirmBankChange(ctx, params.id, body.number),
)
