import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../../../http/route'
import { askBankChange } from '../../../supplier/change-bank'

export default route(supplierRoutes.askBankChange, ({ ctx, params, body }) => askBankChange(ctx, params.id, body))
