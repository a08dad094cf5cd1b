import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../../../http/route'
import { giveTaxForm } from '../../../supplier/tax-form'

export default route(supplierRoutes.giveTaxForm, ({ ctx, params, bytes, query }) =>
  giveTaxForm(ctx, params.id, bytes, query.name),
)
